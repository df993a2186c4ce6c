import type { probeSheetView } from "./probeSheetView.server";
import type { probeView } from "./probeView.server";

/** What the probe page has of a circuit whatever was read. */
export type ProbeSheet = ReturnType<typeof probeSheetView>;
/** What the probe page has of the job after each reading. */
export type Probed = ReturnType<typeof probeView>;
