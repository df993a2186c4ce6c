import type { Circuit } from "../circuit/circuit";
import type { Reading } from "../predict/reading";

/** A customer's symptom, as the records count it. */
export const symptoms = ["dead", "some-speeds", "weak", "never-stops", "noise", "other"] as const;
export type Symptom = (typeof symptoms)[number];

/**
 * The symptom of a complaint, from what was heard of the speeds: it never stops; no speed blows; some do not; some
 * blow weakly; a noise; or something else. The worst comes first.
 */
export function symptomOf({ settings }: Circuit, readings: readonly Reading[]): Symptom {
  const [off, ...speeds] = settings;
  let dead = 0;
  let weak = 0;
  let noise = false;
  for (const reading of readings) {
    if (reading.test === "listen" && reading.seen !== "quiet") noise = true;
    if (reading.test !== "airflow" || reading.selectors) continue;
    const setting = reading.setting ?? off;
    const still = (reading.key ?? "off") !== "run" || setting === off;
    if (still) {
      if (reading.seen !== "none") return "never-stops";
    } else if (reading.seen === "none") dead += 1;
    else if (reading.seen !== "normal") weak += 1;
  }
  if (dead > 0) return dead >= speeds.length ? "dead" : "some-speeds";
  return weak > 0 ? "weak" : noise ? "noise" : "other";
}
