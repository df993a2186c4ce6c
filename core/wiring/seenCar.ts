import { z } from "zod";

/** What anybody can see of a vehicle whose wiring diagram nobody has. Each key may be absent. */
export const seenCarSchema = z.strictObject({
  controls: z.enum(["dial", "buttons"]).optional(),
  /** Number of speeds besides off. */
  speeds: z.number().int().min(1).max(12).optional(),
  /** What sets the speed: a resistor pack, or an electronic control module with a heat sink. */
  speedPart: z.enum(["pack", "module", "unknown"]).optional(),
  blowers: z.union([z.literal(1), z.literal(2)]).optional(),
  steering: z.enum(["left", "right"]).optional(),
});
export type SeenCar = z.infer<typeof seenCarSchema>;
