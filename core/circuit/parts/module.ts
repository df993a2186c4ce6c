import { z } from "zod";
import { nonNegative, partBase, positive } from "./partBase";

/** An electronic speed control between feed, ground, command and motor. */
export const moduleSchema = z.strictObject({
  ...partBase,
  kind: z.literal("module"),
  side: z.enum(["low", "high"]),
  drive: z.enum(["pwm", "linear"]),
  commandVolts: z.tuple([z.number().min(-60).max(60), z.number().min(-60).max(60)]),
  onOhms: nonNegative,
  inputOhms: positive.optional(),
  wakeVolts: positive.optional(),
  sleepVolts: positive.optional(),
  /** The command arrives over a data bus, not as a voltage. */
  bus: z.literal(true).optional(),
});
export type ControlModule = z.infer<typeof moduleSchema>;

/** Names of the terminals: feed and ground (DIN 72552), the command, and the two motor legs. */
export const moduleTerminals = (): string[] => ["30", "31", "cmd", "m+", "m-"];
