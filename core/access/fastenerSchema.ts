import { z } from "zod";
import { fastenerHeads, fastenerKinds } from "./fastenerKind";

const size = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9 ./,]{0,15}$/, "must be a size as stamped, like 7 mm or T20");

const sortShape = {
  /** A screw if absent. */
  kind: z.enum(fastenerKinds).optional(),
  /** Absent for clips, and where nobody has looked. */
  head: z.enum(fastenerHeads).optional(),
  /** The size stamped on the tool: `7 mm`, `9/32 in`, `T20`, `PH2`. */
  size: size.optional(),
};

/** Fasteners of one sort that a step removes. */
export const fastenerSchema = z.strictObject({
  count: z.number().int().min(1).max(60),
  ...sortShape,
  into: z.enum(["plastic", "metal"]).optional(),
  /** It cannot be seen from where the hand is. */
  hidden: z.literal(true).optional(),
  /** Its ear is slotted, so it is only loosened and stays in place. */
  loosenOnly: z.literal(true).optional(),
  /** How many are refitted, if not all: a trimmed ear no longer needs its screw. */
  back: z.number().int().min(0).max(60).optional(),
  /** New ones of this sort go in instead of those that came out. */
  instead: z.strictObject(sortShape).optional(),
});
export type Fastener = z.infer<typeof fastenerSchema>;
