import { momentOf } from "../../predict/moment";
import { observationOf, type TestName } from "../../predict/observations/index";
import { type Reading, readingSchema, type Test, testOf } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type Belief, slipMixed } from "../belief/belief";
import type { ReadingScore } from "../belief/readingScore";

/** What a suspect carries, summed over the sampled vehicles. */
interface Carried {
  /** Its belief, with a floor that keeps impossible suspects comparable. */
  readonly weight: number;
  /** By reading: belief times the odds of the reading. */
  readonly odds: Float64Array;
  /** By reading: the belief without that reading, up to a common factor. */
  readonly without: Float64Array;
}

const floor = 1e-300;
/** Cells of the belief below this do not change a sum over all. */
const leastCell = 1e-15;

/** Every suspect's belief, and each reading's odds under it; summed on request. */
export class Support {
  private readonly known: (Carried | undefined)[] = [];
  private whole: Carried | null = null;

  /** By reading: its odds as a slip, and its own odds' share. */
  private readonly slips: readonly number[];
  private readonly times: readonly number[];

  constructor(
    private readonly draws: number,
    private readonly belief: Belief,
  ) {
    const mixed = (odds: number): number[] =>
      belief.scores.map(({ blind }, i) => slipMixed(belief.readings[i] as Reading, odds, blind));
    this.slips = mixed(0);
    this.times = mixed(1).map((whole, i) => whole - (this.slips[i] as number));
  }

  of(variant: number): Carried {
    const known = this.known[variant];
    if (known) return known;
    const carried = this.sum(variant * this.draws, (variant + 1) * this.draws, 0);
    this.known[variant] = carried;
    return carried;
  }

  /** All suspects together. */
  all(): Carried {
    this.whole ??= this.sum(0, this.belief.joint.length, leastCell);
    return this.whole;
  }

  private sum(from: number, to: number, least: number): Carried {
    const { joint, scores } = this.belief;
    const { slips, times } = this;
    const odds = new Float64Array(scores.length);
    const without = new Float64Array(scores.length);
    let weight = 0;
    for (let cell = from; cell < to; cell++) weight += (joint[cell] as number) + floor;
    for (let reading = 0; reading < scores.length; reading++) {
      const scored = (scores[reading] as ReadingScore).odds;
      const slip = slips[reading] as number;
      const share = times[reading] as number;
      let withOdds = 0;
      let before = 0;
      for (let cell = from; cell < to; cell++) {
        const own = (joint[cell] as number) + floor;
        if (own < least) continue;
        const seen = scored[cell] as number;
        withOdds += own * seen;
        before += own / (slip + share * seen);
      }
      odds[reading] = withOdds;
      without[reading] = before;
    }
    return { weight, odds, without };
  }
}

/** What supports a belief, reading by reading. */
export const supportOf = (compiled: CompiledCircuit, belief: Belief): Support =>
  new Support(compiled.samples.length, belief);

/**
 * How likely a suspect made each reading, given all the other readings. By Bayes it is the belief with it over the
 * belief without it, so that the likeliest suspect is compared with those it beat.
 */
export function readingOdds(support: Support, variants: readonly number[]): number[] {
  const { weight, without } = together(support, variants);
  return without.map((before) => ratio(weight, before));
}

/** How likely everything but some suspects made each reading, given all the others. */
export function othersOdds(support: Support, variants: readonly number[]): number[] {
  const all = support.all();
  const own = together(support, variants);
  const weight = Math.max(0, all.weight - own.weight);
  return own.without.map((before, index) =>
    ratio(weight, Math.max(0, (all.without[index] as number) - before)),
  );
}

function together(support: Support, variants: readonly number[]): { weight: number; without: number[] } {
  let weight = 0;
  const without = Array.from(support.all().without, () => 0);
  for (const variant of variants) {
    const own = support.of(variant);
    weight += own.weight;
    for (let i = 0; i < without.length; i++) without[i] = (without[i] as number) + (own.without[i] as number);
  }
  return { weight, without };
}

const ratio = (now: number, before: number): number => (before > 0 ? now / before : 0);

/** What a test would show if a suspect were true: the likeliest word, or the nominal display. */
function expectedValue(compiled: CompiledCircuit, test: Test, variant: number): string | number {
  const model = observationOf(test.test);
  if (model.gives === "word") {
    const own = new Float64Array(model.outcomes.length);
    model.odds(compiled, test, false)(variant, 0, own);
    return model.outcomes[own.indexOf(Math.max(...own))] ?? "";
  }
  const row = compiled.rowsOf(variant)[0]?.row ?? 0;
  return model.value(compiled, test)(row, 0);
}

/** What a test would show: the likeliest word, or a display in its unit. */
export interface Expectation {
  readonly test: TestName;
  readonly value: string | number;
}

/**
 * What a test would show if a suspect were true.
 * @param variant the suspect's place among the variants, or `healthyVariant`
 */
export const expectedResult = (compiled: CompiledCircuit, test: Test, variant: number): Expectation => ({
  test: test.test,
  value: expectedValue(compiled, test, variant),
});

/** The same as a reading to enter. Ohms of an open circuit are null. */
export function expectedReading(compiled: CompiledCircuit, test: Test, variant: number): Reading {
  const value = expectedValue(compiled, test, variant);
  return readingSchema.parse(observationOf(test.test).withResult(test, value));
}

/** What a reading's test would have shown if a suspect were true. */
export const expectedAt = (compiled: CompiledCircuit, reading: Reading, variant: number): Expectation =>
  expectedResult(compiled.at(momentOf(reading, false)), testOf(reading), variant);
