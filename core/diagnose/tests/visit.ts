import { comesAndGoes } from "../../predict/moment";
import { observationOf } from "../../predict/observations/index";
import type { Reading, Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type Belief, believe } from "../belief/belief";
import { attentionMinutes, placesNeeded } from "./access";
import type { Forecast, ForecastOutcome } from "./forecast";
import { forecasts } from "./forecasts";
import { readingFrom } from "./readingFrom";

/** A trip to one place of the vehicle. */
export interface Visit {
  /** The place's id; null for what is done from the seat. */
  readonly place: string | null;
  /** Minutes of all its tests and of getting there. */
  readonly minutes: number;
}

/** The place a test is done at; null if it can be done from the seat. */
export const placeOfTest = (compiled: CompiledCircuit, test: Test): string | null =>
  placesNeeded(compiled, test)[0] ?? null;

/** The place of the last test taken; null from the seat, and before any test. */
export function placeNow(compiled: CompiledCircuit, readings: readonly Reading[]): string | null {
  const last = readings.findLast(({ heard }) => !heard);
  return last ? placeOfTest(compiled, last) : null;
}

/** The most tests one visit is planned with, and the most of them that eyes and hands do before the first. */
const mostTests = 4;
const mostSeen = 2;
/** A test belongs to the visit if it tells at least this share of what the first does for its time (judgement). */
const worthAdding = 0.25;
/** A test that then tells less than this is not worth planning. */
const leastBits = 0.02;
/** An inspection or a tap that takes longer than this does not go before the instruments. */
const quickMinutes = 1;

/** Whether a test needs eyes or hands only. */
const isByHand = ({ look, minutes, accessMinutes }: Forecast): boolean =>
  observationOf(look.test).tools.length === 0 && minutes - accessMinutes <= quickMinutes;

/** What a test tells for its time on the spot. */
const worthThere = ({ bits, minutes, accessMinutes }: Forecast): number =>
  bits / (minutes - accessMinutes + attentionMinutes);

/** The same kind of test at the same points or part, at whatever speed. */
function sameThing(one: Test, other: Test): boolean {
  const { pick } = observationOf(one.test).form;
  return (
    one.test === other.test &&
    pick.kind !== "nothing" &&
    pick.keys.every((key) => Reflect.get(one, key) === Reflect.get(other, key))
  );
}

/** The next visit, and the tests in the order they are best taken: first those of the visit. */
export interface VisitPlan {
  readonly visit: Visit | null;
  /** How many of the tests belong to the visit. */
  readonly count: number;
  readonly tests: readonly Forecast[];
}

/**
 * Plans the next visit around the test that is worth most: what is still worth doing at the same place once it shows
 * what it most likely will, eyes and hands before instruments. Getting there is counted once.
 * @param due tests that come first as they stand: a reading to repeat, the steps of a proof
 * @param ranked the others, by worth
 */
export function planVisit(
  compiled: CompiledCircuit,
  belief: Belief,
  due: readonly Forecast[],
  ranked: readonly Forecast[],
): VisitPlan {
  const dueTests = new Set(due.map(({ look }) => look));
  const tests = [...due, ...ranked.filter(({ look }) => !dueTests.has(look))];
  const [first] = tests;
  if (!first) return { visit: null, count: 0, tests };
  const place = placeOfTest(compiled, first.look);
  const there = tests.filter((own) => own !== first && placeOfTest(compiled, own.look) === place);
  const chosen =
    due.length > 0
      ? [first, ...there.filter(({ look }) => dueTests.has(look))].slice(0, mostTests)
      : alongLikeliest(compiled, belief, first, there);
  const worthSeeing = there.filter(
    (own) => isByHand(own) && worthThere(own) >= worthAdding * worthThere(first) && !chosen.includes(own),
  );
  if (due.length === 0) chosen.push(...worthSeeing.slice(0, mostSeen));
  const seen = due.length > 0 ? [] : chosen.filter(isByHand);
  const inOrder = [...seen, ...chosen.filter((own) => !seen.includes(own))];
  const access = Math.max(...chosen.map(({ accessMinutes }) => accessMinutes));
  const onSpot = chosen.reduce((sum, own) => sum + own.minutes - own.accessMinutes, 0);
  return {
    visit: { place, minutes: access + onSpot },
    count: inOrder.length,
    tests: [...inOrder, ...tests.filter((own) => !chosen.includes(own))],
  };
}

/** The first test, and what is worth doing after it at the same place if each test shows what it most likely will. */
function alongLikeliest(
  compiled: CompiledCircuit,
  belief: Belief,
  first: Forecast,
  there: readonly Forecast[],
): Forecast[] {
  const chosen = [first];
  const least = Math.max(leastBits, worthAdding * worthThere(first) * attentionMinutes);
  let after = belief;
  while (chosen.length < mostTests) {
    const last = chosen.at(-1) as Forecast;
    const [likeliest] = [...last.outcomes].sort((a, b) => b.p - a.p);
    if (!likeliest) break;
    after = believe(
      compiled,
      [...after.readings, likelyReading(last.look, likeliest, after)],
      undefined,
      after.start,
    );
    const forecast = forecasts(compiled, after);
    const left = there
      .filter((own) => !chosen.some(({ look }) => sameThing(look, own.look)))
      .map((own) => ({ own, left: forecast(own.look) }))
      .sort((a, b) => worthThere(b.left) - worthThere(a.left));
    const [best] = left;
    if (!best || best.left.bits < least) break;
    chosen.push(best.own);
  }
  return chosen;
}

/** The reading an outcome would make, taken while it fails where that comes and goes. */
const likelyReading = (look: Test, outcome: ForecastOutcome, { readings }: Belief): Reading => ({
  ...readingFrom(look, outcome),
  ...(comesAndGoes(readings) ? { state: "failing" as const } : {}),
});

/**
 * Number of visits a series of tests takes: a new one begins wherever the place changes.
 * @param from the place one is at before, if that is no visit to be counted
 */
export function visitsOf(compiled: CompiledCircuit, tests: readonly Test[], from?: string | null): number {
  let count = 0;
  let last = from;
  for (const test of tests) {
    const place = placeOfTest(compiled, test);
    if (place !== last) count += 1;
    last = place;
  }
  return count;
}
