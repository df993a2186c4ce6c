import type { Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type Belief, believe } from "../belief/belief";
import { type Expectation, expectedAt, type Support, supportOf } from "./expectation";
import { type Cited, cite } from "./reasons";

/** A reading that contradicts the others, or one of two that do. */
export interface Conflict {
  /** Its place among the readings, from 0. */
  readonly reading: number;
  readonly slip: Cited;
  /** The other of two that cannot both be right, or what the other readings say about the slip. */
  readonly against:
    | { readonly kind: "one"; readonly other: Cited }
    | { readonly kind: "rest"; readonly expected: Expectation };
}

/** A reading does not fit if its odds under a suspect are at most this share of blind chance. */
export const contrary = 0.24;
/** There is no conflict if this share of the belief fits every reading. */
const agreed = 0.5;
/** Number of readings examined, those that fit worst first. */
const mostTried = 4;
/** A reading is examined if it fails to fit this share of the belief. */
const suspicious = 0.1;

/** Suspects below this belief do not count for or against a reading. */
const leastWeighed = 1e-6;

/** Indices of the suspects that count, likeliest first. */
function weighed({ variants }: Belief): number[] {
  const places: number[] = [];
  for (let variant = 0; variant < variants.length; variant++)
    if ((variants[variant] as number) >= leastWeighed) places.push(variant);
  return places.sort((a, b) => (variants[b] as number) - (variants[a] as number));
}

/** Whether a suspect made a reading unlikely. */
function misfits({ scores }: Belief, support: Support, variant: number, reading: number): boolean {
  const { weight, odds } = support.of(variant);
  return (odds[reading] as number) / weight <= contrary * (scores[reading]?.blind ?? 1);
}

/** Whether most of the belief fits every reading; usually the likeliest suspects decide that. */
function allAgree(belief: Belief, support: Support): boolean {
  let fitting = 0;
  let fighting = 0;
  for (const variant of weighed(belief)) {
    const fights = belief.readings.some((_, reading) => misfits(belief, support, variant, reading));
    if (fights) fighting += support.of(variant).weight;
    else fitting += support.of(variant).weight;
    if (fitting >= agreed) return true;
    if (fighting > 1 - agreed) return false;
  }
  return false;
}

/** How much of the belief does not fit each reading. */
function misfitOf(belief: Belief, support: Support): number[] {
  const misfit = belief.readings.map(() => 0);
  for (const variant of weighed(belief)) {
    for (let reading = 0; reading < misfit.length; reading++)
      if (misfits(belief, support, variant, reading))
        misfit[reading] = (misfit[reading] as number) + support.of(variant).weight;
  }
  return misfit;
}

interface Cure {
  readonly reading: number;
  readonly without: Belief;
  /** Logarithm of the likelihood of everything if this reading is a slip. */
  readonly slipEvidence: number;
}

/**
 * Readings that cannot be right together with the rest: without them, most of the belief fits all remaining readings.
 * If removing either of two would do, both are named and the likelier slip is the one to repeat. With fewer than three
 * readings nothing can be called a slip.
 */
export function conflicts(compiled: CompiledCircuit, belief: Belief, support: Support): Conflict[] {
  if (belief.readings.length < 3) return [];
  if (allAgree(belief, support)) return [];
  const cures = misfitOf(belief, support)
    .flatMap((share, index) => (share > suspicious ? [{ share, index }] : []))
    .sort((a, b) => b.share - a.share)
    .slice(0, mostTried)
    .flatMap(({ index }) => cure(compiled, belief, index) ?? [])
    .sort((a, b) => b.slipEvidence - a.slipEvidence);
  const [slip, other] = cures;
  if (!slip) return [];
  const named = { reading: slip.reading, slip: cite(belief, slip.reading) };
  if (other) return [{ ...named, against: { kind: "one", other: cite(belief, other.reading) } }];
  const best = slip.without.variants.indexOf(Math.max(...slip.without.variants));
  const reading = belief.readings[slip.reading] as Reading;
  return [{ ...named, against: { kind: "rest", expected: expectedAt(compiled, reading, best) } }];
}

/** The belief without a reading, if most of it then fits all the others. */
function cure(compiled: CompiledCircuit, { start, readings, scores }: Belief, index: number): Cure | null {
  const others = <T>(items: readonly T[]): T[] => items.filter((_, other) => other !== index);
  const without = believe(compiled, others(readings), others(scores), start);
  if (!allAgree(without, supportOf(compiled, without))) return null;
  return {
    reading: index,
    without,
    slipEvidence: without.evidence + Math.log(scores[index]?.blind ?? 1),
  };
}
