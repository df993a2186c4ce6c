import type { Chance } from "../../chance/chance";
import type { Noise } from "../../motor/mechanicalMode";
import type { Setup } from "../../solve/netlist/setup";

/** A vehicle under test: how its circuit behaves, and what its fault shows to hand, eye, ear and nose. */
export interface TestedVehicle {
  readonly chance: Chance;
  /** Names of the points a probe can reach. */
  readonly points: readonly string[];
  /** Air at a motor's vent, as a hand judges it. */
  airflow(setup: Setup & { readonly at?: string | undefined }): "none" | "weak" | "normal" | "strong";
  /** Open-circuit volts and series ohms of two points, and whether something is chattering. */
  between(
    setup: Setup,
    one: string,
    other: string,
  ): { readonly volts: number; readonly ohms: number; readonly buzz: boolean };
  /** Share of lamps on a chattering circuit that are seen to flicker. */
  readonly flickerShare: number;
  /** How this technician judges a lamp at these volts. */
  lampWord(volts: number): "bright" | "dim" | "dark";
  /** The two points a lamp in place of a part connects. */
  lampEnds(part: string): readonly [string, string];
  /** Volts as this meter shows them. */
  shownVolts(volts: number): number;
  /** Ohms between two points with the battery disconnected. */
  ohmsBetween(setup: Setup, one: string, other: string): number;
  /** Amps through a wire or a motor, true and as this clamp shows them. */
  ampsThrough(setup: Setup, id: string): number;
  shownAmps(amps: number): number;
  noise(setup: Setup): Noise;
  /** What a part or plug looks like, how a wheel turns by hand, what the vents smell of, what the customer says. */
  eyes(at: string): string;
  hand(at: string): string;
  nose(): string;
  told(of: string): string;
  tap(at: string): "starts" | "changes" | "nothing";
  ripple(setup: Setup, at: string): "even" | "uneven" | "missing";
  /** Whether a part alone has failed. */
  failedAlone(part: string): boolean;
}
