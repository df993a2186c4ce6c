import { observationOf } from "../../predict/observations/index";
import type { Reading } from "../../predict/reading";

/** Whether a reading shows the fault: a live test taken while nothing was wrong does not, and is worth taking again. */
export const tellsOfFault = (reading: Reading): boolean =>
  reading.state !== "working" || observationOf(reading.test).form.setup === "none";
