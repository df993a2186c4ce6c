import { comesAndGoes } from "../../predict/moment";
import { historyOf } from "../../predict/observations/history";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import type { Belief } from "../belief/belief";
import type { Forecast } from "./forecast";
import { forecasts } from "./forecasts";

/** What the complaint may already tell of the times at which it fails. */
const toldByPattern: ReadonlySet<string | undefined> = new Set([
  "only-cold",
  "only-hot",
  "only-wet",
  "only-bumps",
]);

/**
 * A question that the customer can still answer and that tells more for its time than the best test: when does it come
 * and go? Null where the complaint says so already, where it is always the same, and once somebody has begun to test.
 */
export function customerQuestion(
  compiled: CompiledCircuit,
  belief: Belief,
  best: Forecast | undefined,
): Forecast | null {
  const { readings } = belief;
  if (!best || !comesAndGoes(readings) || readings.some(({ heard }) => !heard)) return null;
  if (readings.some((reading) => reading.test === "airflow" && toldByPattern.has(reading.pattern)))
    return null;
  const answered = new Set(readings.flatMap((reading) => (reading.test === "history" ? [reading.of] : [])));
  const forecast = forecasts(compiled, belief);
  const [question] = historyOf
    .filter((of) => !answered.has(of))
    .map((of) => forecast({ test: "history", of }))
    .sort((a, b) => b.bits - a.bits);
  // The customer is standing there, so that a question costs no more than its own time.
  return question && question.bits / question.minutes >= best.bits / best.minutes ? question : null;
}
