import { z } from "zod";
import { nonNegative, partBase, positive } from "./partBase";

/** A fuse by its rating; cold ohms are 0.075 / amps unless given. */
export const fuseSchema = z.strictObject({
  ...partBase,
  kind: z.literal("fuse"),
  amps: positive,
  ohms: nonNegative.optional(),
});
export type Fuse = z.infer<typeof fuseSchema>;

/** Names of the terminals: the fed side first. */
export const fuseTerminals = (): string[] => ["in", "out"];
