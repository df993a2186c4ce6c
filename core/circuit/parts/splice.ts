import { z } from "zod";
import { partBase } from "./partBase";

/** A joint of any number of wires. */
export const spliceSchema = z.strictObject({ ...partBase, kind: z.literal("splice") });
export type Splice = z.infer<typeof spliceSchema>;

/** Names of the terminals: the one joint. */
export const spliceTerminals = (): string[] => ["s"];
