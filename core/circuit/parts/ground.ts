import { z } from "zod";
import { nonNegative, partBase } from "./partBase";

/** A ground point: its contact resistance to the reference node. */
export const groundSchema = z.strictObject({
  ...partBase,
  kind: z.literal("ground"),
  ohms: nonNegative,
});
export type Ground = z.infer<typeof groundSchema>;

/** Names of the terminals: the stud (31, DIN 72552). */
export const groundTerminals = (): string[] => ["31"];
