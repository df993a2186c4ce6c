import { z } from "zod";
import { nonNegative, partBase, settingName, terminalName } from "./partBase";

/** A blower speed switch: the outputs that each setting connects to the common terminal. */
export const selectorSchema = z.strictObject({
  ...partBase,
  kind: z.literal("selector"),
  common: terminalName,
  closes: z.record(settingName, z.array(terminalName).max(32)),
  settings: z.array(settingName).min(1).max(24).optional(),
  contactOhms: nonNegative.optional(),
});
export type Selector = z.infer<typeof selectorSchema>;

/** Names of the terminals: the common contact, then every output that some setting closes. */
export function selectorTerminals(part: Selector): string[] {
  return [part.common, ...new Set(Object.values(part.closes).flat())];
}
