import { comesAndGoes } from "../../predict/moment";
import { observationOf } from "../../predict/observations/index";
import type { Tool } from "../../predict/observations/tool";
import { keyOfReading, type Reading, type Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { activeSuspects, cellsOf } from "../belief/activeSuspects";
import type { Belief } from "../belief/belief";
import { Screening } from "../belief/screening";
import { minutesNow, openPlaces, testCost } from "./access";
import { candidateTests, shortsBelief, shortsWorth } from "./candidateTests";
import { type Forecast, forecastTest } from "./forecast";
import { type Strategy, strategyPrefers } from "./strategy";

export interface NextOptions {
  readonly tools: readonly Tool[];
  readonly school: Strategy;
  /** How many tests to return. */
  readonly count: number;
}

const leastBits = 0.003;

/** Number of tests ranked in full after the coarse screening. */
const screened = 24;

/**
 * The tests worth most: expected information about the repair per minute, counting minutes for locations not yet open.
 * A test already taken is not suggested again; of equal tests, the one that unplugs least comes first.
 */
export function nextTests(circuit: CompiledCircuit, belief: Belief, options: NextOptions): Forecast[] {
  const compiled = whenTested(circuit, belief);
  const active = activeSuspects(compiled, belief);
  const open = openPlaces(compiled, belief.readings);
  const taken = new Set(belief.readings.filter(tellsOfFault).map((reading) => keyOfReading(reading)));
  const screening = new Screening(compiled, belief, active);
  const fine = cellsOf(compiled, belief, active);
  const prefers = (test: Test): boolean => strategyPrefers(compiled, options.school, test, belief.readings);
  const shorts = shortsBelief(compiled, belief) > shortsWorth;
  const candidates: { look: Test; bits: number; minutes: number; accessMinutes: number }[] = [];
  for (const { key, test, cost, column } of candidateTests(compiled, options.tools, shorts)) {
    if (taken.has(key)) continue;
    const bits = screening.bits(column());
    if (bits <= leastBits) continue;
    const minutes = minutesNow(cost, open);
    candidates.push({ look: test, bits, minutes, accessMinutes: minutes - cost.minutes });
  }
  candidates.sort(byWorth);
  const kept = [
    ...(options.school === "least-time"
      ? []
      : candidates.filter(({ look: test }) => prefers(test)).slice(0, 5)),
    ...candidates.slice(0, screened),
  ];
  const ranked = [...new Set(kept)]
    .map(({ look: test, minutes, accessMinutes }) => ({
      look: test,
      minutes,
      accessMinutes,
      ...forecastTest(compiled, active, fine, test),
      repairs: active.repairs,
      entropy: active.entropy,
    }))
    .filter(({ bits }) => bits > leastBits)
    .sort(byWorth);
  const first =
    options.school === "least-time"
      ? undefined
      : ranked.find(({ look: test, bits }) => bits > preferredBits && prefers(test));
  const ordered = first ? [first, ...ranked.filter((forecast) => forecast !== first)] : ranked;
  return ordered.slice(0, options.count).map((forecast) => ({ ...forecast, outcomes: forecast.outcomes() }));
}

/** The circuit at the moment a test is best taken: where the symptom comes and goes, that is while it is there. */
const whenTested = (circuit: CompiledCircuit, { readings }: Belief): CompiledCircuit =>
  comesAndGoes(readings) ? circuit.at("failing") : circuit;

/** What a test would show now, whether or not it was taken before. */
export function forecastNow(circuit: CompiledCircuit, belief: Belief, look: Test): Forecast {
  const compiled = whenTested(circuit, belief);
  const active = activeSuspects(compiled, belief);
  const cost = testCost(compiled, look);
  const minutes = minutesNow(cost, openPlaces(compiled, belief.readings));
  const told = forecastTest(compiled, active, cellsOf(compiled, belief, active), look);
  const { repairs, entropy } = active;
  return {
    look,
    minutes,
    accessMinutes: minutes - cost.minutes,
    ...told,
    repairs,
    entropy,
    outcomes: told.outcomes(),
  };
}

/** A live test taken while nothing was wrong is worth taking again. */
const tellsOfFault = (reading: Reading): boolean =>
  reading.state !== "working" || observationOf(reading.test).form.setup === "none";

/** A strategy takes its favourite test first only while that carries information. */
const preferredBits = 0.03;

const byWorth = (
  a: { look: Test; bits: number; minutes: number },
  b: { look: Test; bits: number; minutes: number },
): number => worth(b) - worth(a) || hands(a.look) - hands(b.look);

/**
 * Bits per minute, with a fixed charge for attention on every test. Without it, many tests with little information at
 * an open location come before the decisive one, and the whole takes longer (measured on the fleet).
 */
const worth = ({ bits, minutes }: { bits: number; minutes: number }): number =>
  bits / (minutes + attentionMinutes);
export const attentionMinutes = 8;
const hands = (test: Test): number => (test.unplugged?.length ?? 0) + (test.bridged?.length ?? 0);
