import type { StepKind } from "./stepKind";

/** What the cautions of a step are made from: its kind, and those its plan names. */
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

/** Dangers that a kind of step brings whether its plan says so or not (the trade's own; no source). */
const byKind: Readonly<Partial<Record<StepKind, readonly StepCaution[]>>> = {
  "battery-off": ["bare-positive"],
  battery: ["bare-positive", "battery-weight"],
  cut: ["knife"],
  bracket: ["sharp-bracket"],
};

/** The cautions of a step: those its plan names, and those its kind brings. */
export function cautionsOfStep({ kind, cautions = [] }: CautionedStep): StepCaution[] {
  const own = new Set<StepCaution>([...cautions, ...(kind ? (byKind[kind] ?? []) : [])]);
  return stepCautions.filter((caution) => own.has(caution));
}

/** Kinds of step that want the battery's negative off: they cut, splice, or move the battery. */
const wantsBatteryOff: ReadonlySet<StepKind | undefined> = new Set(["cut", "splice", "battery"]);

/** Whether a step wants the battery's negative off before it. */
export const needsBatteryOff = ({ kind }: CautionedStep): boolean => wantsBatteryOff.has(kind);
