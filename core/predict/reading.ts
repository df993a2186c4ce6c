import { z } from "zod";
import { keyPositions } from "../circuit/parts/ignition";
import { spinFeels } from "../motor/mechanicalMode";

const point = z.string().min(1).max(64);

/** Set-up keys, the same on every test. */
export const setupSchema = {
  key: z.enum(keyPositions).optional(),
  engine: z.boolean().optional(),
  setting: z.string().max(16).optional(),
  selectors: z.record(z.string().max(32), z.string().max(16)).optional(),
  unplugged: z.array(z.string().max(32)).max(50).optional(),
  bridged: z
    .array(z.tuple([point, point]))
    .max(20)
    .optional(),
  lampFor: z.string().max(32).optional(),
  heard: z.boolean().optional(),
};

export const airflowSeen = ["none", "weak", "normal", "strong"] as const;
export const lightSeen = ["bright", "dim", "dark", "flickers"] as const;
export const lookSeen = ["clean", "corroded", "melted", "wet", "debris", "blown"] as const;

export const airflowReading = z.strictObject({
  test: z.literal("airflow"),
  ...setupSchema,
  at: z.string().max(32).optional(),
  seen: z.enum(airflowSeen),
});
export const lightReading = z.strictObject({
  test: z.literal("light"),
  ...setupSchema,
  probe: point,
  clip: point,
  seen: z.enum(lightSeen),
});
export const voltsReading = z.strictObject({
  test: z.literal("volts"),
  ...setupSchema,
  red: point,
  black: point,
  volts: z.number().min(-1000).max(1000),
});
export const ohmsReading = z.strictObject({
  test: z.literal("ohms"),
  ...setupSchema,
  red: point,
  black: point,
  ohms: z.number().min(0).max(1e9).nullable(),
});
export const lookReading = z.strictObject({
  test: z.literal("look"),
  ...setupSchema,
  at: z.string().max(32),
  seen: z.enum(lookSeen),
});
export const spinReading = z.strictObject({
  test: z.literal("spin"),
  ...setupSchema,
  at: z.string().max(32),
  seen: z.enum(spinFeels),
});

/** Every test Airway understands so far: adding one is a schema here and a model in `tests/`. */
export const readingSchema = z.discriminatedUnion("test", [
  airflowReading,
  lightReading,
  voltsReading,
  ohmsReading,
  lookReading,
  spinReading,
]);

export type Reading = z.infer<typeof readingSchema>;
export type TestName = Reading["test"];
export type ReadingOf<T extends TestName> = Extract<Reading, { test: T }>;

type Without<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;
/** A reading without its result: what to do, not yet what it did. */
export type Look = Without<Reading, "seen" | "volts" | "ohms" | "heard">;
export type LookOf<T extends TestName> = Extract<Look, { test: T }>;

/** The look of a reading: its result and how it came to be known taken away. */
export function lookOf(reading: Reading): Look {
  const look: Record<string, unknown> = { ...reading };
  delete look.heard;
  delete look.seen;
  delete look.volts;
  delete look.ohms;
  return look as unknown as Look;
}

/** A text equal for looks that are the same test in the same set-up. */
export function lookKey(look: Look): string {
  const entries = Object.entries(look).filter(([, value]) => value !== undefined);
  return JSON.stringify(entries.sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** What a reading gave: a word, a number, or null where the meter showed no end. */
export function resultOf(reading: Reading): string | number | null {
  if (reading.test === "volts") return reading.volts;
  return reading.test === "ohms" ? reading.ohms : reading.seen;
}
