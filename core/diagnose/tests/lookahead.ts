import { notListed, type Repair } from "../../fault/repair";
import { comesAndGoes } from "../../predict/moment";
import type { Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type Belief, believe, repairBelief } from "../belief/belief";
import { entropyBits } from "../belief/entropy";
import type { Forecast, ForecastOutcome } from "./forecast";
import { type NextOptions, nextTests } from "./nextTest";
import { readingFrom } from "./readingFrom";
import { type Strategy, strategies } from "./strategy";

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

/** Expected minutes to the verdict when starting with a strategy. */
export interface StrategyCost {
  readonly school: Strategy;
  readonly minutes: number;
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

const outcomesOf = ({ outcomes }: Forecast): ForecastOutcome[] =>
  [...outcomes]
    .sort((a, b) => b.p - a.p)
    .filter(({ p }, place) => place < leastOutcomes || p >= leastP)
    .slice(0, mostOutcomes);

interface Walk {
  readonly look: LookaheadTest | null;
  /** Expected minutes to the verdict from here. */
  readonly minutes: number;
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

function walk(compiled: CompiledCircuit, belief: Belief, options: NextOptions, left: number): Walk {
  const [, p] = best(repairBelief(compiled, belief));
  if (p >= sureEnough && belief.readings.some(({ heard }) => !heard)) return { look: null, minutes: 0 };
  const [forecast] = nextTests(compiled, belief, { ...options, count: 1 });
  if (!forecast) return { look: null, minutes: 0 };
  if (left === 0) return { look: null, minutes: minutesLeft(compiled, belief, forecast) };
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
    const [repair, repairP] = best(repairBelief(compiled, after));
    return { seen: outcome.seen, p: outcome.p, repair, repairP, next: following.look };
  });
  return { look: { test: forecast.look, minutes: forecast.minutes, outcomes }, minutes };
}

/**
 * The next two or three tests, and the expected minutes of each strategy in this case. Each strategy takes the same
 * walk; the doubt at its end is charged at the rate of the best test there.
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
