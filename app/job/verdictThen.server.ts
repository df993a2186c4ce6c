import type { VerdictThen } from "@db/repositories/fittings.server";
import { beliefIn, diagnosisOf } from "./diagnosis.server";
import { activeReadings, type JobView, minutesTesting } from "./jobView.server";

/** The verdict as it stands when parts are fitted. */
export function verdictThen(view: JobView, parts: readonly string[]): VerdictThen {
  const { suspects, verdict } = diagnosisOf(view);
  return {
    p: beliefIn(suspects, parts),
    state: verdict.state,
    looks: activeReadings(view).filter(({ heard }) => !heard).length,
    minutes: minutesTesting(view),
  };
}
