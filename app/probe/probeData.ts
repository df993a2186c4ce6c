import type { probeSheetView } from "./probeSheetView.server";
import type { probeView } from "./probeView.server";

/** The probe page's data about a circuit, independent of the readings. */
export type ProbeSheet = ReturnType<typeof probeSheetView>;
/** The probe page's data about the job, after each reading. */
export type Probed = ReturnType<typeof probeView>;
