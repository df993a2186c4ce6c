import { z } from "zod";
import { type Observation, observationOf, observations, type TestName } from "./observations/index";
import {
  type NumberObservation,
  type TestIn,
  toldKeys,
  type WordObservation,
} from "./observations/observation";

export type { TestName } from "./observations/index";

const [first, ...others] = observations;

/** A reading of any test, as stored in the formats. */
export const readingSchema = z.discriminatedUnion("test", [
  first.schema,
  ...others.map(({ schema }) => schema),
]);

export type Reading = z.infer<Observation["schema"]>;
export type ReadingOf<T extends TestName> = Extract<Reading, { test: T }>;

type TestBy<O> = O extends WordObservation<infer S, infer K> | NumberObservation<infer S, infer K>
  ? TestIn<S, K>
  : never;
/** A reading without its result: what to do, not yet the outcome. */
export type Test = TestBy<Observation>;
export type TestOf<T extends TestName> = Extract<Test, { test: T }>;

/** Keys of a reading that are not its test's: its result, how it is known, and when it was taken. */
const notOfTest = [...toldKeys, ...new Set(observations.flatMap(({ resultKeys }) => [...resultKeys]))];

/** The test of a reading: the reading without its result, and without how it is known and when it was taken. */
export function testOf(reading: Reading): Test {
  const test: Test = { ...reading };
  for (const key of notOfTest) Reflect.deleteProperty(test, key);
  return test;
}

/**
 * Reads a test from outside: a reading without its result.
 * @returns null if it is not a test
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

/** Keys and values as one text, in sorted order; equal for objects with the same content. */
export function contentKey(item: object): string {
  const entries = Object.entries(item).filter(([, value]) => value !== undefined);
  return JSON.stringify(entries.sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** A text that is equal for the same test in the same set-up. */
export const testKey = (test: Test): string => contentKey(test);

const whole = new WeakMap<Reading, string>();

/** A text that is equal for readings with the same content; computed once for each. */
export function readingKey(reading: Reading): string {
  const known = whole.get(reading) ?? contentKey(reading);
  whole.set(reading, known);
  return known;
}

const keys = new WeakMap<Reading, string>();

/** The key of a reading's test, computed once. */
export function keyOfReading(reading: Reading): string {
  const known = keys.get(reading) ?? testKey(testOf(reading));
  keys.set(reading, known);
  return known;
}

/** The result of a reading: a word, a number, or null for OL (open). */
export function resultOf(reading: Reading): string | number | null {
  const seen = observationOf(reading.test).seen(reading);
  return seen === Number.POSITIVE_INFINITY ? null : seen;
}
