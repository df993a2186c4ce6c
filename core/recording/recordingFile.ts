import type { Parsed } from "../problem/problem";
import type { CurrentRecording } from "../signal/currentRecording";
import { ampsPerFigure, type ProbeScale } from "../signal/probeScale";
import { RowReader } from "./csvRows";
import { sketchCsv } from "./csvSketch";
import { type RecordingSketch, unitScale, wrong } from "./recordingSketch";
import { sketchWav, wavSamples } from "./wavSamples";

/** How a file is to be read; whatever is omitted is taken from the file. */
export interface RecordingChoice {
  /** The file's type as stated; by its first bytes if omitted. */
  readonly kind?: "csv" | "wav" | undefined;
  readonly valueColumn?: number | undefined;
  readonly timeColumn?: number | null | undefined;
  readonly rateHz?: number | undefined;
  /** The probe; by the column's unit if omitted. */
  readonly scale?: ProbeScale | undefined;
}

/** Whether a file begins as a RIFF file (Microsoft and IBM, 1991), which includes WAV. */
export const isWav = (bytes: Uint8Array): boolean =>
  bytes.length >= 4 && bytes[0] === 0x52 && bytes[1] === 0x49 && bytes[2] === 0x46;

/**
 * Inspects a file's first part: delimiter, decimals, header, units, rate.
 * @param kind the file's stated type; by its first bytes if omitted
 * @param length bytes of the whole file, if only its first part is passed
 * @returns what was found, or why it cannot be a recording
 */
export const sketchRecording = (
  bytes: Uint8Array,
  kind?: "csv" | "wav",
  length = bytes.length,
): Parsed<RecordingSketch> =>
  kind === "wav" || (kind === undefined && isWav(bytes)) ? sketchWav(bytes) : sketchCsv(bytes, length);

/**
 * Reads a current recording from a CSV or WAV file: evenly spaced samples, scaled to amps. A WAV file's full scale
 * counts as one volt.
 * @param onProgress called with the share of the file read, 0 to 1
 */
export function readRecording(
  bytes: Uint8Array,
  choice: RecordingChoice = {},
  onProgress: (share: number) => void = () => {},
): Parsed<CurrentRecording> {
  const found = sketchRecording(bytes, choice.kind);
  if (!found.ok) return found;
  if (found.value.kind === "csv") {
    const reader = textReader(found.value, choice);
    if (!reader.ok) return reader;
    for (let at = 0; at < bytes.length; at += partBytes) {
      const refused = reader.value.push(bytes.subarray(at, at + partBytes));
      if (refused) return refused;
      onProgress(Math.min(1, (at + partBytes) / bytes.length));
    }
    return reader.value.end();
  }
  const column = valueColumnOf(found.value, choice);
  return column.ok ? wavSamples(bytes, column.value, timesOf(found.value, column.value, choice)) : column;
}

/** Bytes of a chunk of text. */
export const partBytes = 4 * 1024 * 1024;

/**
 * A reader for a text too long to hold in memory, fed in chunks.
 * @param sketch what its first part showed
 */
export function textReader(sketch: RecordingSketch, choice: RecordingChoice = {}): Parsed<RowReader> {
  const column = valueColumnOf(sketch, choice);
  if (!column.ok) return column;
  const timeColumn = choice.timeColumn === undefined ? sketch.timeColumn : choice.timeColumn;
  const rateHz = choice.rateHz ?? (timeColumn === null ? sketch.rateHz : null);
  if (timeColumn === null && rateHz === null)
    return wrong("missing", "rate", "the file has no column of times: give the samples a second");
  const wanted = {
    timeColumn: rateHz === null ? timeColumn : null,
    valueColumn: column.value,
    rateHz,
    times: timesOf(sketch, column.value, choice),
  };
  return { ok: true, value: new RowReader(sketch, wanted) };
}

function valueColumnOf(
  sketch: RecordingSketch,
  { valueColumn = sketch.valueColumn }: RecordingChoice,
): Parsed<number> {
  return sketch.columns[valueColumn]
    ? { ok: true, value: valueColumn }
    : wrong("no-such-thing", "column", `there is no column ${valueColumn + 1}`);
}

const timesOf = (
  sketch: RecordingSketch,
  column: number,
  { scale = { kind: "amps" } }: RecordingChoice,
): number => scaleOf(sketch, column) * ampsPerFigure(scale);

const scaleOf = (sketch: RecordingSketch, column: number): number =>
  column === sketch.valueColumn ? sketch.perFigure : (unitScale(sketch.columns[column]?.unit ?? "").per ?? 1);
