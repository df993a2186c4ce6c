import { z } from "zod";
import { nonNegative, partBase } from "./partBase";

/** A connector in the middle of the harness; each pin joins an `a` side to a `b` side. */
export const inlineSchema = z.strictObject({
  ...partBase,
  kind: z.literal("inline"),
  pins: z
    .array(z.string().regex(/^[A-Za-z0-9_]{1,12}$/, "must be 1 to 12 letters, digits or _"))
    .min(1)
    .max(64),
  pinOhms: nonNegative.optional(),
});
export type InlineConnector = z.infer<typeof inlineSchema>;

/** Names of the terminals: both sides of every pin. */
export function inlineTerminals(part: InlineConnector): string[] {
  return part.pins.flatMap((pin) => [`${pin}a`, `${pin}b`]);
}
