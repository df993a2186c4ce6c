import type { HumpsRecord } from "@core/recording/storedRecording";
import type { TraceLine } from "./motorView.server";

/** A stored recording of the motor's current, with its ripple. */
export type HumpsLine = TraceLine & { readonly record: HumpsRecord };
