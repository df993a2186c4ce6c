import { z } from "zod";
import { nonNegative, partBase, terminalName } from "./partBase";

export const keyPositions = ["off", "acc", "run"] as const;
export type KeyPosition = (typeof keyPositions)[number];

/** The key switch: the outputs that each position connects to `30`. */
export const ignitionSchema = z.strictObject({
  ...partBase,
  kind: z.literal("ignition"),
  closes: z.strictObject({
    off: z.array(terminalName).max(32).optional(),
    acc: z.array(terminalName).max(32).optional(),
    run: z.array(terminalName).max(32).optional(),
  }),
  contactOhms: nonNegative.optional(),
});
export type Ignition = z.infer<typeof ignitionSchema>;

/** Names of the terminals: the feed (30, DIN 72552), then every output that some key position closes. */
export function ignitionTerminals(part: Ignition): string[] {
  return ["30", ...new Set(keyPositions.flatMap((key) => part.closes[key] ?? []))];
}
