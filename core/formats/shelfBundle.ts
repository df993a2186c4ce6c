import { z } from "zod";
import { circuitSchema } from "../circuit/circuit";

/** The contents list of a shelf bundle, `airway-shelf` version 1: a zip of circuit files with the notes on each. */
export const shelfBundleSchema = z.strictObject({
  format: z.literal("airway-shelf"),
  version: z.literal(1),
  /** In the bundle, each is the file `circuits/ID.json`. */
  circuits: z
    .array(
      z.strictObject({
        id: circuitSchema.shape.id,
        /** For the next person, oldest first. */
        notes: z.array(z.string().min(1).max(1000)).max(200).optional(),
      }),
    )
    .max(5000),
});
export type ShelfBundle = z.infer<typeof shelfBundleSchema>;

/** Name of the contents list in a bundle, and of a circuit's own file. */
export const bundleContents = "airway-shelf.json";
/** Path of a circuit's own file in a bundle. */
export const bundleFile = (id: string): string => `circuits/${id}.json`;
