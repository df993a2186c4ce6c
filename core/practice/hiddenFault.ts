import type { Fault } from "../fault/fault";
import type { Noise } from "../motor/mechanicalMode";

/** What a fault that comes and goes waits for. */
export const conditions = ["heat", "time", "wet", "bumps"] as const;
export type Condition = (typeof conditions)[number];

/** How a fault behaves beyond what it changes in the circuit. */
export interface FaultBehaviour {
  /** What it waits for; null if it is there all the time. */
  readonly waitsFor: Condition | null;
  /** The setting a selector's contacts stand at whatever its knob says, by selector. */
  readonly contactsStandAt: Readonly<Record<string, string>>;
  /** What people call its noise while the motor turns, and whether a finger over the vent hole stops it. */
  readonly noise: { readonly words: readonly Noise[]; readonly stopsWithVentCovered: boolean } | null;
  /** Damage of its own or a neighbour's that eyes can find: what is seen, by part or plug. */
  readonly visible: ReadonlyMap<string, string>;
}

/** A fault that is always there and shows no more than its mode does. */
export const plainBehaviour: FaultBehaviour = {
  waitsFor: null,
  contactsStandAt: {},
  noise: null,
  visible: new Map(),
};

/** A fault with its behaviour, as a vehicle hides it. */
export interface HiddenFault {
  readonly fault: Fault;
  readonly behaviour: FaultBehaviour;
  /** The group it is reported under: `plug`, `mechanical`, `comes and goes`, `outside the catalogue`. */
  readonly kind: string;
}
