import { z } from "zod";

const positive = z.number().positive().max(1e9);

/** How the figures of a recording convert to amps. */
export const probeScaleSchema = z.discriminatedUnion("kind", [
  /** The figures are amps. */
  z.strictObject({ kind: z.literal("amps") }),
  /** A clamp with an output in volts per amp: 0.01 for 10 mV/A. */
  z.strictObject({ kind: z.literal("volts-per-amp"), voltsPerAmp: positive }),
  /** A clamp marked in amps per volt. */
  z.strictObject({ kind: z.literal("amps-per-volt"), ampsPerVolt: positive }),
  /** Volts across a shunt of a given resistance in ohms (Ohm's law). */
  z.strictObject({ kind: z.literal("shunt"), ohms: positive }),
]);

export type ProbeScale = z.infer<typeof probeScaleSchema>;

/** Amps for one unit of the file's figures, which are volts, or amps for `amps`. */
export function ampsPerFigure(scale: ProbeScale): number {
  switch (scale.kind) {
    case "amps":
      return 1;
    case "volts-per-amp":
      return 1 / scale.voltsPerAmp;
    case "amps-per-volt":
      return scale.ampsPerVolt;
    case "shunt":
      return 1 / scale.ohms;
  }
}
