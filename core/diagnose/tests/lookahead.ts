import { notListed, type Repair } from "../../fault/repair";
import { comesAndGoes } from "../../predict/moment";
import type { Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type Belief, believe, repairBelief } from "../belief/belief";
import { entropyBits } from "../belief/entropy";
import { proofOf } from "../proof/proof";
import type { Forecast, ForecastOutcome } from "./forecast";
import { type NextOptions, nextTests } from "./nextTest";
import { readableOutcomes } from "./readableOutcomes";
import { readingFrom } from "./readingFrom";
import { type Strategy, strategies } from "./strategy";
import { placeNow, visitsOf } from "./visit";

/** A following test and, for each of its outcomes, what would come next. */
export interface LookaheadTest {
  readonly test: Test;
  readonly minutes: number;
  readonly outcomes: readonly {
    readonly seen: string;
    readonly p: number;
    /** The likeliest repair then, and its probability. */
    readonly repair: Repair;
    readonly repairP: number;
    /** The next test, or null if none is worth it or the walk ends. */
    readonly next: LookaheadTest | null;
  }[];
}

/** What it takes, on average, to reach a proved verdict when starting with a strategy. */
export interface StrategyCost {
  readonly school: Strategy;
  readonly minutes: number;
  /** Trips to a place of the vehicle, the present one not counted again. */
  readonly visits: number;
}

export interface Lookahead {
  readonly first: LookaheadTest | null;
  readonly schools: readonly StrategyCost[];
}

const depth = 3;
/** Outcomes less likely than this are left out, except the first two. */
const leastP = 0.06;
const leastOutcomes = 2;
const mostOutcomes = 3;
/** Belief at which the walk ends. */
const sureEnough = 0.95;

function best(repairs: ReadonlyMap<Repair, number>): [Repair, number] {
  return [...repairs].reduce<[Repair, number]>((top, one) => (one[1] > top[1] ? one : top), [notListed, 0]);
}

const outcomesOf = (forecast: Forecast): ForecastOutcome[] =>
  readableOutcomes(forecast)
    .sort((a, b) => b.p - a.p)
    .filter(({ p }, place) => place < leastOutcomes || p >= leastP)
    .slice(0, mostOutcomes);

interface Walk {
  readonly look: LookaheadTest | null;
  /** Expected minutes and visits to a proved verdict from here. */
  readonly minutes: number;
  readonly visits: number;
}

/** Minutes still to come where the walk ends: the remaining doubt at the rate of the best test. */
function minutesLeft(
  compiled: CompiledCircuit,
  belief: Belief,
  { bits, minutes, accessMinutes }: Forecast,
): number {
  const doubt = entropyBits([...repairBelief(compiled, belief).values()]);
  return accessMinutes + (minutes - accessMinutes) * Math.max(1, Math.min(12, doubt / bits));
}

const looksOf = (tests: readonly Forecast[]): Test[] => tests.map(({ look }) => look);
const sumMinutes = (tests: readonly Forecast[]): number =>
  tests.reduce((sum, { minutes }) => sum + minutes, 0);

/** @param given the first test, where it is decided already */
function walk(
  compiled: CompiledCircuit,
  belief: Belief,
  options: NextOptions,
  left: number,
  given: Forecast | null = null,
): Walk {
  const here = placeNow(compiled, belief.readings);
  const [repair, p] = best(repairBelief(compiled, belief));
  if (!given && p >= sureEnough && belief.readings.some(({ heard }) => !heard)) {
    const { missing } = proofOf(compiled, belief, repair, options.tools);
    return { look: null, minutes: sumMinutes(missing), visits: visitsOf(compiled, looksOf(missing), here) };
  }
  const forecast = given ?? nextTests(compiled, belief, { ...options, count: 1 })[0];
  if (!forecast) return { look: null, minutes: 0, visits: 0 };
  let visits = visitsOf(compiled, [forecast.look], here);
  if (left === 0) return { look: null, minutes: minutesLeft(compiled, belief, forecast), visits };
  const told = outcomesOf(forecast);
  const known = told.reduce((sum, outcome) => sum + outcome.p, 0);
  const taken = comesAndGoes(belief.readings) ? ({ state: "failing" } as const) : {};
  let minutes = forecast.minutes;
  const outcomes = told.map((outcome) => {
    const after = believe(
      compiled,
      [...belief.readings, { ...readingFrom(forecast.look, outcome), ...taken }],
      undefined,
      belief.start,
    );
    const following = walk(compiled, after, options, left - 1);
    minutes += (outcome.p / known) * following.minutes;
    visits += (outcome.p / known) * following.visits;
    const [then, thenP] = best(repairBelief(compiled, after));
    return { seen: outcome.seen, p: outcome.p, repair: then, repairP: thenP, next: following.look };
  });
  return { look: { test: forecast.look, minutes: forecast.minutes, outcomes }, minutes, visits };
}

/**
 * The next two or three tests, and the expected minutes and visits of each strategy in this case. Each strategy takes
 * the same walk. Doubt that is left at its end is charged at the rate of the best test left.
 * @param next the test that comes next with the strategy in use; null if none is left
 */
export function lookahead(
  compiled: CompiledCircuit,
  belief: Belief,
  options: NextOptions,
  next: Forecast | null,
): Lookahead {
  const own = next ? walk(compiled, belief, options, depth, next) : { look: null, minutes: 0, visits: 0 };
  return {
    first: own.look,
    schools: strategies.map((school) => {
      const { minutes, visits } =
        school === options.school ? own : walk(compiled, belief, { ...options, school }, depth - 1);
      return { school, minutes, visits };
    }),
  };
}
