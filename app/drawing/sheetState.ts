import type { OperatingPoint } from "@core/solve/operatingPoint";

/** One state the circuit can be shown in: a set-up under what is taken as true. */
export interface SheetState {
  /** `healthy`, or a suspect's fault id. */
  readonly under: string;
  /** `run` with a setting, or `off`. */
  readonly key: "run" | "off";
  readonly setting: string;
  readonly point: Pick<OperatingPoint, "volts" | "amps" | "rpm" | "floating" | "buzzing">;
}

/** Doubt by part: how likely each needs work. */
export type PartDoubt = Readonly<Record<string, number>>;
