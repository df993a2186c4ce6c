import type { RippleRecord } from "@core/recording/storedRecording";
import type { RecordingLine } from "./motorView.server";

/** A stored recording of the motor's current, with its ripple. */
export type RippleLine = RecordingLine & { readonly record: RippleRecord };
