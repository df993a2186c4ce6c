import { z } from "zod";
import { type Observation, observationOf, observations, type TestName } from "./observations/index";
import type { NumberObservation, TestIn, WordObservation } from "./observations/observation";

export type { TestName } from "./observations/index";

const [first, ...others] = observations;

/** A reading of any test, as the formats hold it. */
export const readingSchema = z.discriminatedUnion("test", [
  first.schema,
  ...others.map(({ schema }) => schema),
]);

export type Reading = z.infer<Observation["schema"]>;
export type ReadingOf<T extends TestName> = Extract<Reading, { test: T }>;

type TestBy<O> = O extends WordObservation<infer S, infer K> | NumberObservation<infer S, infer K>
  ? TestIn<S, K>
  : never;
/** A reading without its result: what to do, not yet what it did. */
export type Test = TestBy<Observation>;
export type TestOf<T extends TestName> = Extract<Test, { test: T }>;

/** Keys of a reading that tell what came of it and how it came to be known. */
const toldKeys = ["heard", ...new Set(observations.flatMap(({ resultKeys }) => [...resultKeys]))];

/** The test of a reading: its result and how it came to be known taken away. */
export function testOf(reading: Reading): Test {
  const test: Test = { ...reading };
  for (const key of toldKeys) Reflect.deleteProperty(test, key);
  return test;
}

/**
 * Reads a test from outside: a reading without its result.
 * @returns null where it is none
 */
export function parseTest(input: unknown): Test | null {
  const named = z.looseObject({ test: z.string() }).safeParse(input);
  const observation = observations.find(({ name }) => name === named.data?.test);
  if (!observation) return null;
  const blank = observation.gives === "word" ? (observation.outcomes[0] ?? "") : 0;
  const { test = "", ...rest } = named.data ?? {};
  const parsed = readingSchema.safeParse(observation.withResult({ ...rest, test }, blank));
  return parsed.success ? testOf(parsed.data) : null;
}

/** Keys and values as one text, whatever order they came in. */
function textOf(item: object): string {
  const entries = Object.entries(item).filter(([, value]) => value !== undefined);
  return JSON.stringify(entries.sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** A text equal for tests that are the same in the same set-up. */
export const testKey = (test: Test): string => textOf(test);

const whole = new WeakMap<Reading, string>();

/** A text equal for readings that say the same; worked out once. */
export function readingKey(reading: Reading): string {
  const known = whole.get(reading) ?? textOf(reading);
  whole.set(reading, known);
  return known;
}

const keys = new WeakMap<Reading, string>();

/** The key of a reading's test, worked out once. */
export function keyOfReading(reading: Reading): string {
  const known = keys.get(reading) ?? testKey(testOf(reading));
  keys.set(reading, known);
  return known;
}

/** What a reading gave: a word, a number, or null where the meter showed an open circuit. */
export function resultOf(reading: Reading): string | number | null {
  const seen = observationOf(reading.test).seen(reading);
  return seen === Number.POSITIVE_INFINITY ? null : seen;
}
