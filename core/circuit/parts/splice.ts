import { z } from "zod";
import { partBase } from "./partBase";

/** A joint of any number of wires. */
export const spliceSchema = z.strictObject({ ...partBase, kind: z.literal("splice") });
export type Splice = z.infer<typeof spliceSchema>;

export const spliceTerminals = (): string[] => ["s"];
