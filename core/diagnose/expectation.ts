import type { CompiledCircuit } from "../predict/compiledCircuit";
import { type Look, lookOf, type Reading } from "../predict/reading";
import type { NumberTest, OddsAt, WordTest } from "../predict/testModel";
import { testModels } from "../predict/tests/index";
import { ampsText, ohmsText, voltsText } from "../units/wording";
import { type Belief, slipMixed } from "./belief";

/** How much of the belief, and of each reading's odds under it, every suspect carries. */
export interface Support {
  /** Belief by variant, with a floor that keeps the impossible comparable. */
  readonly weight: Float64Array;
  /** By reading, then by variant: belief times the odds of what was seen. */
  readonly odds: readonly Float64Array[];
  /** By reading, then by variant: what the belief would be without that reading, up to a factor. */
  readonly without: readonly Float64Array[];
}

const floor = 1e-300;

/** Sums the belief's drawn vehicles away, reading by reading. */
export function supportOf(compiled: CompiledCircuit, belief: Belief): Support {
  const draws = compiled.draws.length;
  const count = compiled.variants.length;
  const weight = belief.variants.map((p) => p + draws * floor);
  const odds = belief.scores.map(() => new Float64Array(count));
  const without = belief.scores.map(() => new Float64Array(count));
  belief.scores.forEach((score, index) => {
    const reading = belief.readings[index] as Reading;
    const [ownOdds, ownWithout] = [odds[index] as Float64Array, without[index] as Float64Array];
    const floorOdds = slipMixed(reading, 0, score.blind);
    const times = slipMixed(reading, 1, score.blind) - floorOdds;
    for (let variant = 0, cell = 0; variant < count; variant++) {
      let withOdds = 0;
      let before = 0;
      for (let draw = 0; draw < draws; draw++, cell++) {
        const joint = (belief.joint[cell] as number) + floor;
        const seen = score.odds[cell] as number;
        withOdds += joint * seen;
        before += joint / (floorOdds + times * seen);
      }
      ownOdds[variant] = withOdds;
      ownWithout[variant] = before;
    }
  });
  return { weight, odds, without };
}

/**
 * How likely a suspect made each reading, given all the other readings: by Bayes the belief with it over
 * the belief without it, so that the likeliest suspect is measured against those it beat.
 */
export function readingOdds({ weight, without }: Support, variants: readonly number[]): number[] {
  const total = (values: Float64Array): number =>
    variants.reduce((sum, variant) => sum + (values[variant] as number), 0);
  const now = total(weight);
  return without.map((before) => ratio(now, total(before)));
}

/** How likely everything but one suspect made each reading, given all the others. */
export function othersOdds({ weight, without }: Support, variants: readonly number[]): number[] {
  const rest = (values: Float64Array): number => {
    let sum = 0;
    for (const value of values) sum += value;
    for (const variant of variants) sum -= values[variant] as number;
    return Math.max(0, sum);
  };
  const now = rest(weight);
  return without.map((before) => ratio(now, rest(before)));
}

const ratio = (now: number, before: number): number => (before > 0 ? now / before : 0);

/** What a look would show if a suspect were true: the likeliest word, or the nominal display. */
export function expectedResult(compiled: CompiledCircuit, look: Look, variant: number): string {
  const model = testModels[look.test];
  if (model.gives === "word") {
    const word = model as unknown as WordTest<"light">;
    const oddsAt: OddsAt = word.odds(compiled, look as never, false);
    const own = new Float64Array(word.outcomes.length);
    oddsAt(variant, 0, own);
    const best = own.indexOf(Math.max(...own));
    return word.outcomes[best] ?? "";
  }
  const number = model as NumberTest<"volts">;
  const row = compiled.variants[variant]?.rows[0]?.row ?? 0;
  const value = number.value(compiled, look as never)(row, 0);
  return displayText(look.test, value);
}

/** A display with its unit. */
export function displayText(test: Look["test"], value: number): string {
  if (test === "ohms") return ohmsText(value);
  return test === "amps" ? ampsText(value) : voltsText(value);
}

/** What a reading's look would have shown if a suspect were true. */
export const expectedAt = (compiled: CompiledCircuit, reading: Reading, variant: number): string =>
  expectedResult(compiled, lookOf(reading), variant);
