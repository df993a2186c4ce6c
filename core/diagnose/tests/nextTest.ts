import type { Repair } from "../../fault/repair";
import type { Tool } from "../../predict/observations/tool";
import { keyOfReading, type Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type Active, activeSuspects, cellsOf } from "../belief/activeSuspects";
import type { Belief } from "../belief/belief";
import { Screening } from "../belief/screening";
import { stepsLeft } from "../proof/proofLines";
import { shareShown } from "../proof/shareShown";
import { attentionMinutes, minutesNow, openPlaces } from "./access";
import { calledFor } from "./calledFor";
import { candidateTests, shortsBelief, shortsWorth } from "./candidateTests";
import { type Forecast, forecastTest } from "./forecast";
import { whenTested } from "./forecasts";
import { type Strategy, strategyPrefers } from "./strategy";
import { tellsOfFault } from "./tellsOfFault";

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
  const fits = calledFor(compiled, belief.readings);
  const screening = new Screening(compiled, belief, active);
  const fine = cellsOf(compiled, belief, active);
  const prefers = (test: Test): boolean => strategyPrefers(compiled, options.school, test, belief.readings);
  const shorts = shortsBelief(compiled, belief) > shortsWorth;
  const candidates: { look: Test; bits: number; minutes: number; accessMinutes: number }[] = [];
  for (const { key, test, cost, column } of candidateTests(compiled, options.tools, shorts)) {
    if (taken.has(key) || !fits(test)) continue;
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
  const serving = proofServed(circuit, belief, active);
  const ranked = [...new Set(kept)]
    .map(({ look: test, minutes, accessMinutes }) => {
      const { bits, outcomes } = forecastTest(compiled, active, fine, test);
      const { repairs, entropy } = active;
      return { look: test, minutes, accessMinutes, bits, repairs, entropy, outcomes: outcomes() };
    })
    .filter(({ bits }) => bits > leastBits)
    .map((forecast) => ({ forecast, worth: worth(forecast) / (1 - serving(forecast)) }))
    .sort((a, b) => b.worth - a.worth || hands(a.forecast.look) - hands(b.forecast.look))
    .map(({ forecast }) => forecast);
  const first =
    options.school === "least-time"
      ? undefined
      : ranked.find(({ look: test, bits }) => bits > preferredBits && prefers(test));
  const ordered = first ? [first, ...ranked.filter((forecast) => forecast !== first)] : ranked;
  return ordered.slice(0, options.count);
}

/** The largest share of a test's time that its part in a proof is taken to save (judgement). */
const mostServed = 0.8;

/**
 * The share of a test's time that is spent anyway: the leading suspect is confirmed only on its proof, so a test that
 * is a step of it has to be taken sooner or later, as often as that suspect is right and shows the step.
 */
function proofServed(
  compiled: CompiledCircuit,
  belief: Belief,
  { repairs, repairOf, variants }: Active,
): (forecast: Forecast) => number {
  const sums = repairs.map(() => 0);
  variants.forEach((variant, i) => {
    const at = repairOf[i] as number;
    sums[at] = (sums[at] as number) + (belief.variants[variant] as number);
  });
  const leader = sums.indexOf(Math.max(...sums));
  const repair = repairs[leader] as Repair;
  const steps = stepsLeft(compiled, belief, repair);
  return (forecast) => {
    const own = steps.filter(({ asks }) => asks(forecast.look));
    const shown = Math.max(0, ...own.map((step) => shareShown(step, forecast, repair)));
    return mostServed * (sums[leader] as number) * shown;
  };
}

/** A strategy takes its favourite test first only while that carries information. */
const preferredBits = 0.03;

const byWorth = (
  a: { look: Test; bits: number; minutes: number },
  b: { look: Test; bits: number; minutes: number },
): number => worth(b) - worth(a) || hands(a.look) - hands(b.look);

/** Bits per minute, with the charge for attention. */
const worth = ({ bits, minutes }: { bits: number; minutes: number }): number =>
  bits / (minutes + attentionMinutes);
const hands = (test: Test): number => (test.unplugged?.length ?? 0) + (test.bridged?.length ?? 0);
