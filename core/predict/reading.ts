import { z } from "zod";
import { keyPositions } from "../circuit/parts/ignition";
import { noises, spinFeels } from "../motor/mechanicalMode";

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
export const inspectSeen = ["clean", "corroded", "melted", "wet", "debris", "blown"] as const;

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
export const inspectReading = z.strictObject({
  test: z.literal("look"),
  ...setupSchema,
  at: z.string().max(32),
  seen: z.enum(inspectSeen),
});
export const spinReading = z.strictObject({
  test: z.literal("spin"),
  ...setupSchema,
  at: z.string().max(32),
  seen: z.enum(spinFeels),
});

export const ampsReading = z.strictObject({
  test: z.literal("amps"),
  ...setupSchema,
  around: z.string().max(32),
  amps: z.number().min(-10_000).max(10_000),
});
export const listenReading = z.strictObject({
  test: z.literal("listen"),
  ...setupSchema,
  ventCovered: z.boolean().optional(),
  seen: z.enum(noises),
  followsSpeed: z.boolean().optional(),
});
export const smellSeen = ["none", "burnt", "musty"] as const;
export const smellReading = z.strictObject({
  test: z.literal("smell"),
  ...setupSchema,
  seen: z.enum(smellSeen),
});
export const historyOf = ["heat", "bumps", "damp", "wet-carpet", "recent-work", "recall"] as const;
export const historySeen = ["yes", "no"] as const;
export const historyReading = z.strictObject({
  test: z.literal("history"),
  ...setupSchema,
  of: z.enum(historyOf),
  seen: z.enum(historySeen),
});
export const tapSeen = ["starts", "changes", "nothing"] as const;
export const tapReading = z.strictObject({
  test: z.literal("tap"),
  ...setupSchema,
  at: z.string().max(32),
  seen: z.enum(tapSeen),
});
export const lamploadSeen = ["bright", "dim", "dark"] as const;
export const lamploadReading = z.strictObject({
  test: z.literal("lampload"),
  ...setupSchema,
  lampFor: z.string().max(32),
  seen: z.enum(lamploadSeen),
});
export const swapSeen = ["fixed", "same"] as const;
export const swapReading = z.strictObject({
  test: z.literal("swap"),
  ...setupSchema,
  at: z.string().max(32),
  seen: z.enum(swapSeen),
});
export const rippleSeen = ["even", "uneven", "missing"] as const;
export const rippleReading = z.strictObject({
  test: z.literal("ripple"),
  ...setupSchema,
  at: z.string().max(32),
  seen: z.enum(rippleSeen),
});

/** Every test Airway understands: adding one is a schema here and a model in `tests/`. */
export const readingSchema = z.discriminatedUnion("test", [
  airflowReading,
  lightReading,
  voltsReading,
  ohmsReading,
  ampsReading,
  inspectReading,
  spinReading,
  listenReading,
  smellReading,
  historyReading,
  tapReading,
  lamploadReading,
  swapReading,
  rippleReading,
]);

export const testNames = [
  "airflow",
  "light",
  "volts",
  "amps",
  "ohms",
  "look",
  "listen",
  "smell",
  "history",
  "spin",
  "tap",
  "lampload",
  "swap",
  "ripple",
] as const satisfies readonly Reading["test"][];

export type Reading = z.infer<typeof readingSchema>;
export type TestName = Reading["test"];
export type ReadingOf<T extends TestName> = Extract<Reading, { test: T }>;

/** Keys of a reading that tell what came of it and how it came to be known. */
const resultKeys = ["seen", "volts", "ohms", "amps", "followsSpeed", "heard"] as const;

type Without<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;
/** A reading without its result: what to do, not yet what it did. */
export type Test = Without<Reading, (typeof resultKeys)[number]>;
export type TestOf<T extends TestName> = Extract<Test, { test: T }>;

/** The look of a reading: its result and how it came to be known taken away. */
export function testOf(reading: Reading): Test {
  const told: readonly string[] = resultKeys;
  return Object.fromEntries(
    Object.entries(reading).filter(([key]) => !told.includes(key)),
  ) as unknown as Test;
}

/**
 * Reads a look from outside: a reading without its result.
 * @returns null where it is none
 */
export function parseTest(input: unknown): Test | null {
  if (typeof input !== "object" || input === null) return null;
  const { test } = input as { test?: unknown };
  const shape = readingSchema.options.find((option) => option.shape.test.value === test);
  if (!shape) return null;
  const blank = Object.fromEntries(
    Object.entries({ volts: 0, amps: 0, ohms: 0 }).filter(([key]) => key in shape.shape),
  );
  const seen = "seen" in shape.shape ? { seen: (shape.shape.seen as z.ZodEnum).options[0] } : {};
  const parsed = readingSchema.safeParse({ ...input, ...blank, ...seen });
  return parsed.success ? testOf(parsed.data) : null;
}

/** A text equal for looks that are the same test in the same set-up. */
export function testKey(test: Test): string {
  const entries = Object.entries(test).filter(([, value]) => value !== undefined);
  return JSON.stringify(entries.sort(([a], [b]) => (a < b ? -1 : 1)));
}

const keys = new WeakMap<Reading, string>();

/** The key of a reading's look, worked out once. */
export function keyOfReading(reading: Reading): string {
  const known = keys.get(reading) ?? testKey(testOf(reading));
  keys.set(reading, known);
  return known;
}

/** What a reading gave: a word, a number, or null where the meter showed no end. */
export function resultOf(reading: Reading): string | number | null {
  if (reading.test === "volts") return reading.volts;
  if (reading.test === "amps") return reading.amps;
  return reading.test === "ohms" ? reading.ohms : reading.seen;
}
