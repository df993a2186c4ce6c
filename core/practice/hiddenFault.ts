import type { Chance } from "../chance/chance";
import type { Fault } from "../fault/fault";
import type { Pattern } from "../predict/moment";

/** What a fault that comes and goes waits for. */
export const conditions = ["heat", "time", "wet", "bumps"] as const;
export type Condition = (typeof conditions)[number];

/** How a fault behaves beyond what it changes in the circuit. */
export interface FaultBehaviour {
  /** What it waits for; null if it is there all the time. */
  readonly waitsFor: Condition | null;
  /** Damage of its own or a neighbour's that eyes can find: what is seen, by part or plug. */
  readonly visible: ReadonlyMap<string, string>;
}

/** A fault that is always there and shows no more than its mode does. */
export const plainBehaviour: FaultBehaviour = {
  waitsFor: null,
  visible: new Map(),
};

/** What people say of a symptom that waits for something, and how often (judgements, no source). */
const toldOf: Readonly<Record<Condition, readonly (readonly [Pattern, number])[]>> = {
  heat: [
    ["only-hot", 0.6],
    ["comes-and-goes", 0.25],
    ["fades", 0.15],
  ],
  time: [
    ["fades", 0.55],
    ["comes-and-goes", 0.45],
  ],
  wet: [
    ["only-wet", 0.7],
    ["comes-and-goes", 0.3],
  ],
  bumps: [
    ["only-bumps", 0.7],
    ["comes-and-goes", 0.3],
  ],
};
/** A loose contact waits for nothing that people can name, or for bumps. */
const toldOfLoose: readonly (readonly [Pattern, number])[] = [
  ["comes-and-goes", 0.7],
  ["only-bumps", 0.3],
];

/** Motors and evaporators that lose air little by little rather than at once. */
const fading = new Set(["fades-hot", "iced"]);

/** Whether a fault is there at some times and gone at others. */
export const variesInTime = ({ presentShare }: Fault, { waitsFor }: FaultBehaviour): boolean =>
  waitsFor !== null || presentShare < 1;

/** What a customer says of a fault that comes and goes. */
export function patternTold(fault: Fault, { waitsFor }: FaultBehaviour, chance: Chance): Pattern {
  if (fault.names.some(({ mode }) => fading.has(mode))) return "fades";
  const told = waitsFor ? toldOf[waitsFor] : toldOfLoose;
  return told[chance.weighted(told.map(([, share]) => share))]?.[0] ?? "comes-and-goes";
}

/** A fault with its behaviour, as a vehicle hides it. */
export interface HiddenFault {
  readonly fault: Fault;
  readonly behaviour: FaultBehaviour;
  /** The group it is reported under: `plug`, `mechanical`, `comes and goes`, `outside the catalogue`. */
  readonly kind: string;
}
