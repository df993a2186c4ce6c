import { notListed, type Repair } from "../../fault/repair";
import { observationOf } from "../../predict/observations/index";
import { type Reading, readingSchema, type Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type Belief, believe, repairBelief } from "../belief/belief";
import { entropyBits } from "../belief/entropy";
import type { Forecast, ForecastOutcome } from "./forecast";
import { type NextOptions, nextTests } from "./nextTest";
import { type Strategy, strategies } from "./strategy";

/** A test to come and, for each way it can turn out, what would follow. */
export interface LookaheadTest {
  readonly test: Test;
  readonly minutes: number;
  readonly outcomes: readonly {
    readonly seen: string;
    readonly p: number;
    /** The likeliest repair then, and how likely. */
    readonly repair: Repair;
    readonly repairP: number;
    /** The test after, or null where none is worth it or the plan ends. */
    readonly next: LookaheadTest | null;
  }[];
}

/** What beginning as a strategy does is expected to cost, in minutes to the verdict. */
export interface StrategyCost {
  readonly school: Strategy;
  readonly minutes: number;
}

export interface Lookahead {
  readonly first: LookaheadTest | null;
  readonly schools: readonly StrategyCost[];
}

const depth = 3;
/** Outcomes rarer than this are left out of the plan. */
const leastP = 0.06;
const mostOutcomes = 3;
/** Belief from which nothing more is planned. */
const sureEnough = 0.95;

/** The reading an outcome of a test would make. */
export function readingFrom(test: Test, { seen, value }: ForecastOutcome): Reading {
  const model = observationOf(test.test);
  const result = model.gives === "word" ? seen : (value ?? Number.POSITIVE_INFINITY);
  return readingSchema.parse(model.withResult(test, result));
}

function best(repairs: ReadonlyMap<Repair, number>): [Repair, number] {
  return [...repairs].reduce<[Repair, number]>((top, one) => (one[1] > top[1] ? one : top), [notListed, 0]);
}

const outcomesOf = ({ outcomes }: Forecast): ForecastOutcome[] =>
  [...outcomes]
    .filter(({ p }) => p >= leastP)
    .sort((a, b) => b.p - a.p)
    .slice(0, mostOutcomes);

interface Walk {
  readonly look: LookaheadTest | null;
  /** Expected minutes to the verdict from here. */
  readonly minutes: number;
}

/** Minutes still to come where the plan ends: the doubt left at the pace of the best test. */
function minutesLeft(
  compiled: CompiledCircuit,
  belief: Belief,
  { bits, minutes, accessMinutes }: Forecast,
): number {
  const doubt = entropyBits([...repairBelief(compiled, belief).values()]);
  return accessMinutes + (minutes - accessMinutes) * Math.max(1, Math.min(12, doubt / bits));
}

function walk(compiled: CompiledCircuit, belief: Belief, options: NextOptions, left: number): Walk {
  const [, p] = best(repairBelief(compiled, belief));
  if (p >= sureEnough && belief.readings.some(({ heard }) => !heard)) return { look: null, minutes: 0 };
  const [forecast] = nextTests(compiled, belief, { ...options, count: 1 });
  if (!forecast) return { look: null, minutes: 0 };
  if (left === 0) return { look: null, minutes: minutesLeft(compiled, belief, forecast) };
  const told = outcomesOf(forecast);
  const known = told.reduce((sum, outcome) => sum + outcome.p, 0);
  let minutes = forecast.minutes;
  const outcomes = told.map((outcome) => {
    const after = believe(
      compiled,
      [...belief.readings, readingFrom(forecast.look, outcome)],
      undefined,
      belief.start,
    );
    const following = walk(compiled, after, options, left - 1);
    minutes += (outcome.p / known) * following.minutes;
    const [repair, repairP] = best(repairBelief(compiled, after));
    return { seen: outcome.seen, p: outcome.p, repair, repairP, next: following.look };
  });
  return { look: { test: forecast.look, minutes: forecast.minutes, outcomes }, minutes };
}

/**
 * The two or three tests to come, and what each strategy is expected to cost in this case: the same walk
 * under each, the doubt at its end priced at the pace of the best test there.
 */
export function lookahead(compiled: CompiledCircuit, belief: Belief, options: NextOptions): Lookahead {
  const own = walk(compiled, belief, options, depth);
  return {
    first: own.look,
    schools: strategies.map((strategy) => ({
      school: strategy,
      minutes:
        strategy === options.school
          ? own.minutes
          : walk(compiled, belief, { ...options, school: strategy }, depth - 1).minutes,
    })),
  };
}
