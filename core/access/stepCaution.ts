import type { StepKind } from "./stepKind";

/** What determines the cautions of a step: its kind, and those its plan names. */
interface CautionedStep {
  readonly kind?: StepKind | undefined;
  readonly cautions?: readonly StepCaution[] | undefined;
}

/** What can hurt someone during removal or refitting. */
export const stepCautions = [
  "airbag",
  "wheel",
  "hot-pack",
  "bare-positive",
  "knife",
  "battery-weight",
  "sharp-bracket",
  "refrigerant",
] as const;
export type StepCaution = (typeof stepCautions)[number];

/** Dangers of a kind of step, whether its plan names them or not (the trade's own; no source). */
const byKind: Readonly<Partial<Record<StepKind, readonly StepCaution[]>>> = {
  "battery-off": ["bare-positive"],
  battery: ["bare-positive", "battery-weight"],
  cut: ["knife"],
  bracket: ["sharp-bracket"],
};

/** The cautions of a step: those its plan names, and those of its kind. */
export function cautionsOfStep({ kind, cautions = [] }: CautionedStep): StepCaution[] {
  const own = new Set<StepCaution>([...cautions, ...(kind ? (byKind[kind] ?? []) : [])]);
  return stepCautions.filter((caution) => own.has(caution));
}

/** Kinds of step that need the battery negative disconnected: they cut, splice, or move the battery. */
const wantsBatteryOff: ReadonlySet<StepKind | undefined> = new Set(["cut", "splice", "battery"]);

/** Whether the battery negative must be disconnected before a step. */
export const needsBatteryOff = ({ kind }: CautionedStep): boolean => wantsBatteryOff.has(kind);
