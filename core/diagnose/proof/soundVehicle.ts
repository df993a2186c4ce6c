import { type Reading, resultOf, type Test, testKey, testOf } from "../../predict/reading";
import { type CompiledCircuit, healthyVariant } from "../../predict/tables/compiledCircuit";
import { perCircuit } from "../../predict/tables/perCircuit";
import { expectedResult } from "../explain/expectation";

/** A result beside what a vehicle without a fault shows in the same test. */
export interface Compared {
  readonly seen: string | number;
  readonly sound: string | number;
}

const soundResults = perCircuit(() => new Map<string, string | number>());

/** A reading's result, and a sound vehicle's. An open circuit is Infinity. */
export function compared(compiled: CompiledCircuit, reading: Reading): Compared {
  const test: Test = testOf(reading);
  const key = testKey(test);
  const known = soundResults(compiled);
  const sound = known.get(key) ?? expectedResult(compiled, test, healthyVariant).value;
  known.set(key, sound);
  return { seen: resultOf(reading) ?? Number.POSITIVE_INFINITY, sound };
}

/** How bright a lamp is, in order; a word that is no brightness is -1. */
const brightness = (word: string | number): number =>
  ["dark", "flickers", "dim", "bright"].indexOf(String(word));

/** Volts lost on both sides together that a sound vehicle may lose: 0.5 V a side (common practice, no source). */
const lossVolts = 1;
/** Fewer volts than this are nothing that could be seen to be there. */
const leastVolts = 3;

/** Feed or ground is there, as in a sound vehicle or better. Volts are compared by size, lamps by brightness. */
export function isThere({ seen, sound }: Compared): boolean {
  if (typeof seen === "string") return brightness(sound) > 0 && brightness(seen) >= brightness(sound);
  const own = Math.abs(Number(sound));
  return own >= leastVolts && Math.abs(seen) >= own - lossVolts;
}

/** Feed or ground is missing or has dropped; on a point that should be grounded, it stands at volts. */
export function isMissing({ seen, sound }: Compared): boolean {
  if (typeof seen === "string") return brightness(seen) < brightness(sound);
  const own = Math.abs(Number(sound));
  return own >= leastVolts
    ? Math.abs(seen) < own - lossVolts
    : own < lossVolts && Math.abs(seen) > own + lossVolts;
}

/** There is voltage where a sound vehicle has none. */
export function isStray({ seen, sound }: Compared): boolean {
  if (typeof seen === "string") return sound === "dark" && brightness(seen) >= brightness("dim");
  return Math.abs(Number(sound)) < lossVolts && Math.abs(seen) > leastVolts;
}

/** Share by which the display of a sound part may differ, and the least difference that counts (judgement). */
const soundShare = 0.3;

/**
 * The result is another than in a sound vehicle: another word, or a display too far off.
 * @param least difference that does not count, in the display's unit
 */
export function isWrong({ seen, sound }: Compared, least: number): boolean {
  if (typeof seen === "string" || typeof sound === "string") return seen !== sound;
  if (seen === sound) return false;
  return !(Math.abs(seen - sound) <= least + soundShare * Math.abs(sound));
}
