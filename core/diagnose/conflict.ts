import type { CompiledCircuit } from "../predict/compiledCircuit";
import type { Reading } from "../predict/reading";
import { lookText, resultText } from "../predict/readingText";
import { type Belief, believe } from "./belief";
import { expectedAt, readingOdds, type Support, supportOf } from "./expectation";

/** A reading that fights the others, or one of them. */
export interface Conflict {
  /** Its number, from 0. */
  readonly reading: number;
  readonly why: string;
}

/** Odds of a reading, as a share of blind chance, at and below which it fights the belief. */
const contrary = 0.24;
const cured = 0.5;

/**
 * Readings the belief calls unlikely, and whose removal would make the rest agree: the slip to
 * repeat. Where taking one other reading away would cure it as well, the two are named together and the
 * likelier slip of the two is the one to repeat. With fewer than three readings nothing can be called a slip.
 */
export function conflicts(compiled: CompiledCircuit, belief: Belief, support: Support): Conflict[] {
  if (belief.readings.length < 3) return [];
  const odds = readingOdds(support, [...belief.variants.keys()]);
  return belief.readings.flatMap((_, index) => {
    if (!fights(belief, odds, index)) return [];
    const without = leaveOut(compiled, belief, index);
    if (without.unknown > cured) return [];
    const partner = partnerOf(compiled, belief, index, without);
    if (partner) return [{ reading: partner.slip, why: pairText(belief.readings, index, partner) }];
    const reading = belief.readings[index] as Reading;
    const best = without.variants.indexOf(Math.max(...without.variants));
    const why = `Reading ${index + 1} (${cite(reading)}) fights the others, which make it ${expectedAt(compiled, reading, best)}; repeat it.`;
    return [{ reading: index, why }];
  });
}

const fights = ({ scores }: Belief, odds: readonly number[], index: number): boolean =>
  (odds[index] as number) <= contrary * (scores[index]?.blind ?? 1);

function leaveOut(compiled: CompiledCircuit, { readings, scores }: Belief, index: number): Belief {
  const others = <T>(items: readonly T[]): T[] => items.filter((_, other) => other !== index);
  return believe(compiled, others(readings), others(scores));
}

interface Partner {
  readonly other: number;
  /** Which of the two is the likelier slip. */
  readonly slip: number;
}

/** The one other reading without which this one would be no surprise, if there is just one. */
function partnerOf(
  compiled: CompiledCircuit,
  belief: Belief,
  index: number,
  without: Belief,
): Partner | null {
  const cures = belief.readings.flatMap((_, other) => {
    if (other === index) return [];
    const rest = leaveOut(compiled, belief, other);
    const place = other < index ? index - 1 : index;
    const odds = readingOdds(supportOf(compiled, rest), [...rest.variants.keys()]);
    return fights(rest, odds, place) ? [] : [{ other, rest }];
  });
  const [only] = cures;
  if (!only || cures.length > 1) return null;
  const blind = (at: number): number => Math.log(belief.scores[at]?.blind ?? 1);
  const ownSlip = without.evidence + blind(index);
  const otherSlip = only.rest.evidence + blind(only.other);
  return { other: only.other, slip: ownSlip >= otherSlip ? index : only.other };
}

const cite = (reading: Reading): string => `${lookText(reading)}: ${resultText(reading)}`;

function pairText(readings: readonly Reading[], index: number, { other, slip }: Partner): string {
  const [first, second] = index < other ? [index, other] : [other, index];
  const name = (at: number): string => `${at + 1} (${cite(readings[at] as Reading)})`;
  return `Readings ${name(first)} and ${name(second)} cannot both be right; ${slip + 1} is the likelier slip: repeat it.`;
}
