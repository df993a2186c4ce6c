import type { Diagnosis } from "@core/diagnose/diagnose";
import type { Reading } from "@core/predict/reading";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import type { VerdictThen } from "@db/repositories/fittings.server";
import { beliefIn, diagnosisOf } from "./diagnosis.server";
import { activeReadings, type JobView, minutesTesting } from "./jobView.server";

/** The verdict that some readings gave when parts were fitted. */
export const verdictOn = (
  engine: CompiledCircuit,
  readings: readonly Reading[],
  { suspects, verdict }: Diagnosis,
  parts: readonly string[],
): VerdictThen => ({
  p: beliefIn(suspects, parts),
  state: verdict.state,
  looks: readings.filter(({ heard }) => !heard).length,
  minutes: minutesTesting(engine, readings),
});

/** The verdict as it stands when parts are fitted. */
export const verdictThen = (view: JobView, parts: readonly string[]): VerdictThen =>
  verdictOn(view.engine, activeReadings(view), diagnosisOf(view), parts);
