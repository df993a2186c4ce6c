import { unknownShare } from "../../fault/prior";
import { notListed, type Repair } from "../../fault/repair";
import { keyOfReading, type Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { perCircuit } from "../../predict/tables/perCircuit";
import { posteriorOf, rescale } from "./bayes";
import { type ReadingScore, scoreReadings } from "./readingScore";

/** A belief to continue from: by variant times samples plus sample, then the unknown. It need not sum to 1. */
export interface Start {
  readonly joint: Float64Array;
  readonly unknown: number;
}

/** Belief over every suspect after the readings. */
export interface Belief {
  /** Its starting point: a belief, odds by suspect that replace the catalogue's, or null for the catalogue's. */
  readonly start: Start | ArrayLike<number> | null;
  readonly readings: readonly Reading[];
  /** The number of each reading on the job's list; its place from 1, unless the list also counts other things. */
  readonly numbers: readonly number[];
  readonly scores: readonly ReadingScore[];
  /** Joint probability by variant times samples plus sample; with `unknown` it sums to 1. */
  readonly joint: Float64Array;
  /** Probability by variant, summed over the sampled vehicles. */
  readonly variants: Float64Array;
  readonly unknown: number;
  /** Natural logarithm of the likelihood of all readings together. */
  readonly evidence: number;
}

/**
 * Probabilities that a reading is a mistake: a slip of the moment, and one that would be repeated (wrong terminal,
 * wrong plug), which repeating the test does not cure. Judgements, no source.
 */
const slips = {
  measured: { once: 0.012, again: 0.008 },
  heard: { once: 0.03, again: 0.02 },
} as const;

/** Likelihood of a reading, given the odds of its own, with both kinds of slip mixed in. */
export function slipMixed(reading: Reading, odds: number, blind: number): number {
  const slip = reading.heard ? slips.heard : slips.measured;
  return (1 - slip.again) * ((1 - slip.once) * odds + slip.once * blind) + slip.again * blind;
}

/** Readings of the same test share one probability of a lasting slip. */
function sameLooks(readings: readonly Reading[]): number[][] {
  const groups = new Map<string, number[]>();
  readings.forEach((reading, index) => {
    const key = keyOfReading(reading);
    const own = groups.get(key);
    if (own) own.push(index);
    else groups.set(key, [index]);
  });
  return [...groups.values()];
}

/**
 * P(fault | readings), by Bayes. Within one sampled vehicle readings are independent, and the average over vehicles
 * comes last, so that what readings share is counted once.
 * @param scores scores already known for these readings, in the same order
 * @param start a belief to continue from, or odds by suspect that replace the catalogue's
 */
export function believe(
  compiled: CompiledCircuit,
  readings: readonly Reading[],
  scores: readonly ReadingScore[] = scoreReadings(compiled, readings),
  start: Belief["start"] = null,
): Belief {
  const samples = compiled.samples.length;
  const count = compiled.variants.length;
  const weights = startingWeights(compiled, start);
  let logScale = 0;
  sameLooks(readings).forEach((group, index) => {
    multiplyGroup(weights, group, readings, scores);
    if ((index + 1) % groupsPerRescale === 0) logScale += rescale(weights);
  });
  const { p, evidence } = posteriorOf(weights, logScale);
  const joint = p.subarray(0, count * samples);
  const variants = new Float64Array(count);
  for (let variant = 0, cell = 0; variant < count; variant++) {
    let sum = 0;
    for (let sample = 0; sample < samples; sample++) sum += joint[cell++] as number;
    variants[variant] = sum;
  }
  const numbers = readings.map((_, index) => index + 1);
  return {
    start,
    readings,
    numbers,
    scores,
    joint,
    variants,
    unknown: p[count * samples] as number,
    evidence,
  };
}

/** The starting weights, by variant times samples plus sample, the unknown last. */
function startingWeights(compiled: CompiledCircuit, start: Belief["start"]): Float64Array {
  const { variants, samples } = compiled;
  const cells = variants.length * samples.length;
  const weights = new Float64Array(cells + 1);
  if (!start) {
    weights.set(priorWeights(compiled));
    return weights;
  }
  if ("joint" in start) {
    weights.set(start.joint);
    weights[cells] = start.unknown;
    return weights;
  }
  return byPriors(compiled, start);
}

/** The catalogue's odds by suspect, or those that replace them. */
function byPriors({ variants, samples }: CompiledCircuit, own: ArrayLike<number> | null): Float64Array {
  const cells = variants.length * samples.length;
  const weights = new Float64Array(cells + 1);
  weights[cells] = unknownShare;
  variants.forEach(({ prior }, variant) => {
    const p = own?.[variant] ?? prior;
    weights.fill(p / samples.length, variant * samples.length, (variant + 1) * samples.length);
  });
  return weights;
}

const priorWeights = perCircuit((compiled) => byPriors(compiled, null));

/**
 * Number of readings after which weights are rescaled; so many odds, with slips as a floor, cannot underflow a double.
 */
const groupsPerRescale = 12;

/** Multiplies the likelihood of one group of like readings into every cell, the unknown's last. */
function multiplyGroup(
  weights: Float64Array,
  group: readonly number[],
  readings: readonly Reading[],
  scores: readonly ReadingScore[],
): void {
  const cells = weights.length - 1;
  const slip = group.every((index) => readings[index]?.heard) ? slips.heard : slips.measured;
  const [first = 0, ...more] = group;
  const { odds, blind, unlisted } = scores[first] as ReadingScore;
  const rest = 1 - slip.again;
  if (more.length === 0) {
    const times = rest * (1 - slip.once);
    const floor = (rest * slip.once + slip.again) * blind;
    for (let cell = 0; cell < cells; cell++)
      weights[cell] = (weights[cell] as number) * (times * (odds[cell] as number) + floor);
    weights[cells] = (weights[cells] as number) * unlisted;
    return;
  }
  const own = new Float64Array(cells).fill(rest);
  let together = 1;
  let outside = 1;
  for (const index of group) {
    const score = scores[index] as ReadingScore;
    together *= score.blind;
    outside *= score.unlisted;
    const floor = slip.once * score.blind;
    for (let cell = 0; cell < own.length; cell++)
      own[cell] = (own[cell] as number) * ((1 - slip.once) * (score.odds[cell] as number) + floor);
  }
  const again = slip.again * together;
  for (let cell = 0; cell < cells; cell++)
    weights[cell] = (weights[cell] as number) * ((own[cell] as number) + again);
  weights[cells] = (weights[cells] as number) * outside;
}

/** Probability of each repair, including that of a cause outside the list. */
export function repairBelief(compiled: CompiledCircuit, belief: Belief): Map<Repair, number> {
  const { repairs, repairOf } = compiled;
  const sums = new Float64Array(repairs.length);
  sums[0] = belief.unknown;
  for (let variant = 0; variant < repairOf.length; variant++) {
    const place = repairOf[variant] as number;
    sums[place] = (sums[place] as number) + (belief.variants[variant] as number);
  }
  return new Map(repairs.map((repair, index) => [repair, sums[index] as number]));
}

/** Repairs of listed faults, likeliest first. */
export const rankedRepairs = (repairs: ReadonlyMap<Repair, number>): (readonly [Repair, number])[] =>
  [...repairs].filter(([repair]) => repair !== notListed).sort((a, b) => b[1] - a[1]);

/** Probability that a part needs work; `part` is null for a cause outside the list. */
export interface PartBelief {
  readonly part: string | null;
  readonly p: number;
}

/**
 * Probability that each part needs work, likeliest first. Both parts of a pair count, so these may sum to more than 1.
 */
export function partBelief(repairs: Iterable<readonly [Repair, number]>): PartBelief[] {
  const sums = new Map<string | null, number>();
  for (const [{ parts }, p] of repairs) {
    for (const part of parts.length > 0 ? parts : [null]) sums.set(part, (sums.get(part) ?? 0) + p);
  }
  return [...sums].map(([part, p]) => ({ part, p })).sort((a, b) => b.p - a.p);
}
