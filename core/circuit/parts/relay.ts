import { z } from "zod";
import { nonNegative, partBase, positive } from "./partBase";

/** A relay pulls in when its coil volts, of either polarity, reach `pullInVolts`. */
export const relaySchema = z.strictObject({
  ...partBase,
  kind: z.literal("relay"),
  coilOhms: positive,
  pullInVolts: positive,
  dropOutVolts: positive.optional(),
  contactOhms: nonNegative,
});
export type Relay = z.infer<typeof relaySchema>;

/** `87a`, the normally closed contact, is a terminal only if the circuit uses it. */
export const relayTerminals = (): string[] => ["30", "87", "87a", "85", "86"];
