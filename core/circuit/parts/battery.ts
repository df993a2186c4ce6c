import { z } from "zod";
import { nonNegative, partBase, positive } from "./partBase";

/** A source with internal resistance; its `-` is the reference node. */
export const batterySchema = z.strictObject({
  ...partBase,
  kind: z.literal("battery"),
  restVolts: positive,
  chargingVolts: positive,
  ohms: nonNegative,
});
export type Battery = z.infer<typeof batterySchema>;

/** Names of the terminals: the positive and the negative post. */
export const batteryTerminals = (): string[] => ["+", "-"];
