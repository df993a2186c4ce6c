import type { Look, Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type Belief, believe, repairBelief } from "../belief/belief";
import { entropyBits } from "../belief/entropy";
import type { Forecast, ForecastOutcome } from "./forecast";
import { type NextOptions, nextLooks } from "./nextTest";
import { type School, schools } from "./strategy";

/** A look to come and, for each way it can turn out, what would follow. */
export interface PlannedLook {
  readonly test: Look;
  readonly minutes: number;
  readonly outcomes: readonly {
    readonly seen: string;
    readonly p: number;
    /** The likeliest repair then, and how likely. */
    readonly repair: string;
    readonly repairP: number;
    /** The look after, or null where none is worth it or the plan ends. */
    readonly next: PlannedLook | null;
  }[];
}

/** What beginning as a school does is expected to cost, in minutes to the verdict. */
export interface SchoolCost {
  readonly school: School;
  readonly minutes: number;
}

export interface Plan {
  readonly first: PlannedLook | null;
  readonly schools: readonly SchoolCost[];
}

const depth = 3;
/** Outcomes rarer than this are left out of the plan. */
const leastP = 0.06;
const mostOutcomes = 3;
/** Belief from which nothing more is planned. */
const sureEnough = 0.95;

/** The reading an outcome of a look would make. */
export function readingFrom(look: Look, { seen, value }: ForecastOutcome): Reading {
  if (look.test === "volts") return { ...look, volts: value ?? 0 };
  if (look.test === "amps") return { ...look, amps: value ?? 0 };
  if (look.test === "ohms") return { ...look, ohms: value };
  return { ...look, seen } as Reading;
}

function best(repairs: ReadonlyMap<string, number>): [string, number] {
  return [...repairs].reduce<[string, number]>((top, one) => (one[1] > top[1] ? one : top), ["unknown", 0]);
}

const outcomesOf = ({ outcomes }: Forecast): ForecastOutcome[] =>
  [...outcomes]
    .filter(({ p }) => p >= leastP)
    .sort((a, b) => b.p - a.p)
    .slice(0, mostOutcomes);

interface Walk {
  readonly look: PlannedLook | null;
  /** Expected minutes to the verdict from here. */
  readonly minutes: number;
}

/** Minutes still to come where the plan ends: the doubt left at the pace of the best look. */
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
  const [forecast] = nextLooks(compiled, belief, { ...options, count: 1 });
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
 * The two or three looks to come, and what each school is expected to cost in this case: the same walk
 * under each, the doubt at its end priced at the pace of the best look there.
 */
export function planAhead(compiled: CompiledCircuit, belief: Belief, options: NextOptions): Plan {
  const own = walk(compiled, belief, options, depth);
  return {
    first: own.look,
    schools: schools.map((school) => ({
      school,
      minutes:
        school === options.school
          ? own.minutes
          : walk(compiled, belief, { ...options, school }, depth - 1).minutes,
    })),
  };
}
