import { z } from "zod";
import { circuitSchema } from "../circuit/circuit";

/** The list of contents of a shelf bundle, `airway-shelf` version 1: a zip of circuit files with what is noted of each. */
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

/** Name of the list of contents in a bundle, and of a circuit's own file. */
export const bundleContents = "airway-shelf.json";
/** Where a circuit's own file lies in a bundle. */
export const bundleFile = (id: string): string => `circuits/${id}.json`;
