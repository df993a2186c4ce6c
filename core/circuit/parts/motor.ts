import { z } from "zod";
import { partBase, positive } from "./partBase";

/** A permanent-magnet brushed motor turning a fan. */
export const motorSchema = z.strictObject({
  ...partBase,
  kind: z.literal("motor"),
  ratedVolts: positive,
  ratedAmps: positive,
  stallAmps: positive,
  ratedRpm: positive,
  commutatorBars: z.number().int().min(3).max(200).optional(),
  polePairs: z.number().int().min(1).max(20).optional(),
  /** It has electronic commutation (a brushless motor). */
  brushless: z.literal(true).optional(),
  frictionShare: z.number().min(0).max(0.9).optional(),
});
export type Motor = z.infer<typeof motorSchema>;

/** Names of the terminals: positive and negative. */
export const motorTerminals = (): string[] => ["+", "-"];
