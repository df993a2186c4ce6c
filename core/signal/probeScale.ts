import { z } from "zod";

const positive = z.number().positive().max(1e9);

/** What the probe made of the current: how a recording's figures become amps. */
export const probeScaleSchema = z.discriminatedUnion("kind", [
  /** The figures are amps already. */
  z.strictObject({ kind: z.literal("amps") }),
  /** A clamp that gives so many volts an amp: 0.01 for 10 mV/A. */
  z.strictObject({ kind: z.literal("volts-per-amp"), voltsPerAmp: positive }),
  /** A clamp marked the other way round: so many amps a volt. */
  z.strictObject({ kind: z.literal("amps-per-volt"), ampsPerVolt: positive }),
  /** Volts over a shunt of so many ohms (Ohm's law). */
  z.strictObject({ kind: z.literal("shunt"), ohms: positive }),
]);

export type ProbeScale = z.infer<typeof probeScaleSchema>;

/** Amps that one of the file's figures stands for, the file holding volts or, for `amps`, amps. */
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
