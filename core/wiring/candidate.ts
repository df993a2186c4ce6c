import type { Circuit } from "../circuit/circuit";
import type { PartPlace, PlugPlace, RepairPlace } from "./place";

/** What is said of a candidate's wiring. */
export interface WiringFacts {
  readonly switchedSide: "ground" | "feed";
  readonly relay: boolean;
  readonly drive: "resistor" | "pwm" | "linear" | "bus";
  /** A relay of its own for the strongest speed. */
  readonly highRelay?: boolean;
  /** With it: a relay for each lower speed too. */
  readonly lowRelays?: boolean;
  /** The strongest speed's wire passes through the pack's plug. */
  readonly highAtPack?: boolean;
  /** Whether each tap of the pack has an element of its own, or uses those of the faster taps too. */
  readonly packShape?: "chain" | "star";
}

/** What a pin of a plug is, and where it is probed with the plug mated. */
export interface PinRole {
  /** `plus`, `tap1`, `command` and so on. */
  readonly role: string;
  /** Its harness side: `X1:1`. */
  readonly point: string;
  /** The part's own terminal behind it. */
  readonly terminal: string;
  /** The wire crimped to it. */
  readonly wire: string;
  /** It carries the motor's current. */
  readonly heavy: boolean;
}

/** A whole circuit, and what its points are called by somebody who has no diagram. */
export interface PlacedCircuit {
  readonly circuit: Circuit;
  /** The plugs it has, each with its pins. */
  readonly plugs: ReadonlyMap<PlugPlace, { readonly connector: string; readonly pins: readonly PinRole[] }>;
  /** Its parts by place: `motor` is `M1`. */
  readonly parts: ReadonlyMap<PartPlace, string>;
  readonly fuses: readonly string[];
  readonly grounds: readonly string[];
  /** Where the repair of a part, plug or wire is done. */
  readonly repairPlace: ReadonlyMap<string, RepairPlace>;
}

/** One way the vehicle may be wired. */
export interface Candidate extends PlacedCircuit {
  readonly id: string;
  readonly title: string;
  /** Its share among all vehicles that look the same. */
  readonly prior: number;
  readonly facts: WiringFacts;
}
