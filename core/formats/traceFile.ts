import Papa from "papaparse";
import wavefile from "wavefile";
import type { CurrentTrace } from "../motor/humps";
import { type Parsed, quoted, refused } from "./problem";

const wrong = (path: string, message: string): Parsed<never> => refused([{ path, message }]);

/** A number as a scope writes it: a decimal comma is a point where the columns are not split by commas. */
function numberIn(cell: string | undefined, delimiter: string): number {
  const text = (cell ?? "").trim();
  return text === "" ? Number.NaN : Number(delimiter === "," ? text : text.replace(",", "."));
}

/**
 * Reads a current trace from text: two columns, seconds and the probe's value; delimiter, decimal comma and
 * header lines are found. Rows must be evenly spaced in time.
 * @param voltsPerAmp the probe's scale; 1 where the file holds amps
 */
export function traceFromCsv(text: string, voltsPerAmp = 1): Parsed<CurrentTrace> {
  const { data, meta } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true });
  const rows = data.map(
    (row) => [numberIn(row[0], meta.delimiter), numberIn(row[1], meta.delimiter)] as const,
  );
  const start = rows.findIndex(([seconds, value]) => Number.isFinite(seconds) && Number.isFinite(value));
  if (start < 0) return wrong("", "expected two columns of numbers, seconds and the probe's value");
  const body = rows.slice(start);
  const bad = body.findIndex(([seconds, value]) => !Number.isFinite(seconds) || !Number.isFinite(value));
  if (bad >= 0)
    return wrong(
      `line ${start + bad + 1}`,
      `expected two numbers, got ${quoted(data[start + bad]?.join(" | "))}`,
    );
  if (body.length < 2) return wrong("", "expected at least two rows of numbers");
  const span = (body.at(-1)?.[0] ?? 0) - (body[0]?.[0] ?? 0);
  if (!(span > 0)) return wrong("", `time must rise from the first row to the last, got ${span} s`);
  const amps = Float64Array.from(body, ([, value]) => value / voltsPerAmp);
  return { ok: true, value: { amps, rateHz: (body.length - 1) / span } };
}

/**
 * Reads a current trace from a WAV file's first channel; full scale is taken as one volt.
 * @param voltsPerAmp the probe's scale; 1 where full scale is one amp
 */
export function traceFromWav(bytes: Uint8Array, voltsPerAmp = 1): Parsed<CurrentTrace> {
  try {
    const wav = new wavefile.WaveFile(bytes);
    const { sampleRate } = wav.fmt as { sampleRate: number };
    wav.toBitDepth("32f");
    const samples = wav.getSamples(false, Float64Array) as unknown as Float64Array | Float64Array[];
    const first = Array.isArray(samples) ? samples[0] : samples;
    if (!first || first.length < 2) return wrong("", "the WAV file holds no samples");
    return { ok: true, value: { amps: first.map((value) => value / voltsPerAmp), rateHz: sampleRate } };
  } catch (error) {
    return wrong("", `not a WAV file Airway can read: ${(error as Error).message}`);
  }
}
