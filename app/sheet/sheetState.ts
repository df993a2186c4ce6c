import type { OperatingPoint } from "@core/solve/operatingPoint";

/** One state the circuit can be shown in: a set-up under an assumption. */
export interface SheetState {
  /** `healthy`, or a suspect's fault id. */
  readonly under: string;
  /** `run` with a setting, or `off`. */
  readonly key: "run" | "off";
  readonly setting: string;
  /** True if nothing is known of the vehicle, so that only the wiring is shown. */
  readonly bare?: true;
  readonly point: Pick<OperatingPoint, "volts" | "amps" | "rpm" | "floating" | "buzzing">;
}

/** The wiring alone, with the switches as they are set. */
export const bareState = (key: SheetState["key"], setting: string): SheetState => ({
  under: "healthy",
  key,
  setting,
  bare: true,
  point: { volts: {}, amps: {}, rpm: {}, floating: [], buzzing: [] },
});

/** By part: the probability that it needs work. */
export type PartDoubt = Readonly<Record<string, number>>;
