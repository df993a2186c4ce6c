import type { CompiledCircuit } from "../predict/compiledCircuit";
import { type Look, lookOf, type Reading } from "../predict/reading";
import type { NumberTest, OddsAt, WordTest } from "../predict/testModel";
import { testModels } from "../predict/tests/index";
import { ampsText, ohmsText, voltsText } from "../units/wording";
import type { Belief } from "./belief";

/** How much of the belief, and of each reading's odds under it, every suspect carries. */
export interface Support {
  /** Belief by variant, with a floor that keeps the impossible comparable. */
  readonly weight: Float64Array;
  /** By reading, then by variant: belief times the odds of what was seen. */
  readonly odds: readonly Float64Array[];
}

const floor = 1e-300;

/** Sums the belief's drawn vehicles away, reading by reading. */
export function supportOf(compiled: CompiledCircuit, belief: Belief): Support {
  const draws = compiled.draws.length;
  const count = compiled.variants.length;
  const weight = belief.variants.map((p) => p + draws * floor);
  const odds = belief.scores.map((score) => {
    const sums = new Float64Array(count);
    for (let variant = 0; variant < count; variant++) {
      let sum = 0;
      for (let cell = variant * draws; cell < (variant + 1) * draws; cell++) {
        sum += ((belief.joint[cell] as number) + floor) * (score.odds[cell] as number);
      }
      sums[variant] = sum;
    }
    return sums;
  });
  return { weight, odds };
}

/** How likely a suspect made each reading, averaged over the vehicles it is believed in. */
export function readingOdds(support: Support, variants: readonly number[]): number[] {
  const total = (values: Float64Array): number =>
    variants.reduce((sum, variant) => sum + (values[variant] as number), 0);
  const weight = total(support.weight);
  return support.odds.map((sums) => (weight > 0 ? total(sums) / weight : 0));
}

/** How likely everything but one suspect, as it is believed, made each reading. */
export function othersOdds(support: Support, variants: readonly number[]): number[] {
  const rest = (values: Float64Array): number => {
    let sum = 0;
    for (const value of values) sum += value;
    for (const variant of variants) sum -= values[variant] as number;
    return Math.max(0, sum);
  };
  const weight = rest(support.weight);
  return support.odds.map((sums) => (weight > 0 ? rest(sums) / weight : 0));
}

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
