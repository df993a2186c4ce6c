import { plugsOf } from "../../circuit/plugs";
import { faultId, suspectGroupId } from "../../fault/faultId";
import type { Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { perCircuit } from "../../predict/tables/perCircuit";
import { type Belief, believe, type Start } from "../belief/belief";

/** What a part that was taken out turned out to be. */
export const oldPartStates = ["bad", "good"] as const;
export type OldPartState = (typeof oldPartStates)[number];

/** A repair that did not fix the fault: the parts replaced, and the number of readings before it. */
export interface FailedRepair {
  readonly after: number;
  readonly parts: readonly string[];
  /** What the old parts turned out to be, as far as somebody looked, by part. */
  readonly found?: Readonly<Record<string, OldPartState>> | undefined;
}

/** Probability that an old part is called bad or good by mistake (judgement, no source). */
const misjudged = 0.05;

/** A belief after a look at the parts that were taken out. */
function afterLooking(
  { variants, samples }: CompiledCircuit,
  belief: Belief,
  found: NonNullable<FailedRepair["found"]>,
): Belief {
  const seen = Object.entries(found);
  if (seen.length === 0) return belief;
  const agrees = variants.map(({ fault }) =>
    seen.reduce(
      (p, [part, state]) =>
        p * (fault.parts.includes(part) === (state === "bad") ? 1 - misjudged : misjudged),
      1,
    ),
  );
  // A cause outside the list says nothing about the old part.
  const outside = 0.5 ** seen.length;
  const joint = belief.joint.map((own, cell) => own * (agrees[Math.floor(cell / samples.length)] ?? 0));
  const unknown = belief.unknown * outside;
  const whole = joint.reduce((sum, own) => sum + own, unknown);
  return { ...belief, joint: joint.map((own) => own / whole), unknown: unknown / whole };
}

/** Probability that the new part is faulty too, or that a plug on it is not fully seated (judgement, no source). */
export const newPartBad = 0.01;

/**
 * Probability of a second fault that the first one hid: as often as this vehicle's faults come in pairs, by the odds of
 * its own catalogue (7 to 11 % on the shipped circuits). So a part that was proved bad stays the right repair, and a
 * second fault is the usual reason why the check fails after it.
 */
export const secondFault = perCircuit(({ variants }: CompiledCircuit): number => {
  const sum = (of: typeof variants): number => of.reduce((total, { prior }) => total + prior, 0);
  return sum(variants.filter(({ fault }) => fault.names.length > 1)) / sum(variants);
});

/** Where a suspect's belief goes once some parts are new. */
const cured = -1;

/**
 * What remains of each suspect once parts are new: nothing; the suspect unchanged; or, of a cause and its victim, the
 * one that was not replaced.
 */
function leftOver({ variants }: CompiledCircuit, parts: ReadonlySet<string>): Int32Array {
  const byId = new Map(variants.map(({ id }, index) => [id, index]));
  const byFamily = new Map(variants.map(({ family }, index) => [family, index]));
  return Int32Array.from(variants, ({ fault }, index) => {
    const names = fault.names.filter((_, at) => !parts.has(fault.parts[at] ?? ""));
    if (names.length === fault.names.length) return index;
    if (names.length === 0) return cured;
    return byId.get(faultId(names)) ?? byFamily.get(suspectGroupId(names)) ?? index;
  });
}

/**
 * The belief to continue from after a repair that did not fix the fault. Faults that the new parts would have cured
 * are removed; the rest keep the odds the earlier readings gave them; and a small share goes to the new parts and
 * their plugs, which were touched. By Bayes on the state of the vehicle after the repair, given that it still fails.
 */
export function carriedOver(compiled: CompiledCircuit, belief: Belief, parts: readonly string[]): Start {
  const samples = compiled.samples.length;
  const { variants } = compiled;
  const fresh = new Set(parts);
  const left = leftOver(compiled, fresh);
  const second = secondFault(compiled);
  const joint = new Float64Array(variants.length * samples);
  const byDraw = new Float64Array(samples);
  for (let variant = 0, cell = 0; variant < variants.length; variant++) {
    const onto = left[variant] as number;
    for (let sample = 0; sample < samples; sample++, cell++) {
      const own = belief.joint[cell] as number;
      byDraw[sample] = (byDraw[sample] as number) + own;
      if (onto === cured) continue;
      joint[onto * samples + sample] =
        (joint[onto * samples + sample] as number) + (1 - newPartBad - second) * own;
    }
  }
  const touched = new Set([...parts, ...parts.flatMap((part) => plugsOf(compiled.netlist.circuit, part))]);
  const spread = (share: number, over: readonly number[]): void => {
    const whole = over.reduce((sum, index) => sum + (variants[index]?.prior ?? 0), 0);
    for (const index of over)
      for (let sample = 0; sample < samples; sample++) {
        const cell = index * samples + sample;
        const own = (share * (byDraw[sample] as number) * (variants[index]?.prior ?? 0)) / whole;
        joint[cell] = (joint[cell] as number) + own;
      }
  };
  const all = [...variants.keys()];
  const again = all.filter((index) => variants[index]?.fault.parts.every((part) => touched.has(part)));
  spread(newPartBad, again);
  spread(
    second,
    all.filter((index) => left[index] === index),
  );
  return { joint, unknown: belief.unknown };
}

/**
 * The belief after readings with failed repairs between them: each series of readings starts from the belief the
 * previous one left. The result covers the readings since the last repair.
 * @param begun a belief to begin with, or odds by suspect in place of the catalogue's
 */
export function believeThrough(
  compiled: CompiledCircuit,
  readings: readonly Reading[],
  repairs: readonly FailedRepair[],
  begun: Belief["start"] = null,
): Belief {
  const sorted = [...repairs].sort((a, b) => a.after - b.after);
  let from = 0;
  let start: Belief["start"] = begun;
  for (const { after, parts, found = {} } of sorted) {
    const upTo = Math.min(after, readings.length);
    const then = believe(compiled, readings.slice(from, upTo), undefined, start);
    start = carriedOver(compiled, afterLooking(compiled, then, found), parts);
    from = upTo;
  }
  const belief = believe(compiled, readings.slice(from), undefined, start);
  return from === 0 ? belief : { ...belief, numbers: belief.numbers.map((number) => number + from) };
}

/** Number of readings before the last repair among them. */
export const readingsBefore = (repairs: readonly FailedRepair[], count: number): number =>
  Math.min(count, Math.max(0, ...repairs.map(({ after }) => after)));
