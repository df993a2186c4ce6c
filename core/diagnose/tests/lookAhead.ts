import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type Belief, believe } from "../belief/belief";
import type { Forecast } from "./forecast";
import { attentionMinutes, type NextOptions, nextLooks } from "./nextTest";
import { readingFrom } from "./plan";

const weighed = 4;
const leastP = 0.05;

/** Bits and minutes of a look and of the best look after each way it can turn out. */
function twoSteps(
  compiled: CompiledCircuit,
  belief: Belief,
  options: NextOptions,
  forecast: Forecast,
): number {
  let { bits } = forecast;
  let minutes = forecast.minutes + attentionMinutes;
  for (const outcome of forecast.outcomes) {
    if (outcome.p < leastP) continue;
    const after = believe(
      compiled,
      [...belief.readings, readingFrom(forecast.look, outcome)],
      undefined,
      belief.start,
    );
    const [next] = nextLooks(compiled, after, { ...options, count: 1 });
    if (!next) continue;
    bits += outcome.p * next.bits;
    minutes += outcome.p * (next.minutes + attentionMinutes);
  }
  return bits / minutes;
}

/** The looks again, the first few ordered by what they and the look after them tell per minute. */
export function byTwoSteps(
  compiled: CompiledCircuit,
  belief: Belief,
  options: NextOptions,
  looks: readonly Forecast[],
): Forecast[] {
  const first = looks
    .slice(0, weighed)
    .map((forecast) => ({ forecast, worth: twoSteps(compiled, belief, options, forecast) }))
    .sort((a, b) => b.worth - a.worth)
    .map(({ forecast }) => forecast);
  return [...first, ...looks.slice(weighed)];
}
