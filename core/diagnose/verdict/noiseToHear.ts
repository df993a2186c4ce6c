import { type Reading, type Test, testOf } from "../../predict/reading";

/**
 * The test that hears for oneself a noise the customer told of: of a whistle, whether a finger over the motor's vent
 * hole stops it (common practice, no source). Null if there is none, or once somebody listened.
 */
export function noiseToHear(readings: readonly Reading[]): Test | null {
  const noises = readings.flatMap((reading) => (reading.test === "listen" ? [reading] : []));
  const told = noises.find(({ heard, seen }) => heard && seen !== "quiet");
  if (!told || noises.some(({ heard }) => !heard)) return null;
  const test = testOf(told);
  return told.seen === "whistle" && test.test === "listen" ? { ...test, ventCovered: true } : test;
}
