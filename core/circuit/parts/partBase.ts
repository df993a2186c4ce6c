import { z } from "zod";

/** A part's, connector's or wire's id: a letter, then letters, digits, `_` or `-`. */
export const itemId = z
  .string()
  .regex(/^[A-Za-z][A-Za-z0-9_-]{0,31}$/, "must be a letter followed by up to 31 letters, digits, _ or -");

/** A terminal's or pin's name: no dot, colon, slash or comma, because those join points together. */
export const terminalName = z
  .string()
  .regex(/^[A-Za-z0-9_+-]{1,16}$/, "must be 1 to 16 letters, digits, _, + or -");

export const settingName = z.string().min(1).max(16);
export const shortText = z.string().max(200);
export const positive = z.number().positive().max(1e7);
export const nonNegative = z.number().nonnegative().max(1e7);

/** Keys every part may have in addition to its kind's own. */
export const partBase = {
  id: itemId,
  /** The name used in the diagram, if it is not a valid id: `blower fuse`. */
  title: shortText.optional(),
  place: shortText.optional(),
  assumed: z.literal(true).optional(),
};
