import { type Parsed, quoted, refused } from "@core/formats/problem";
import { traceFromCsv, traceFromWav } from "@core/formats/traceFile";
import { type Humps, readHumps } from "@core/motor/humps";

/** The options of `humps` as they come from the command line. */
export interface HumpsFlags {
  readonly "volts-per-amp"?: string | undefined;
  readonly bars?: string | undefined;
  readonly poles?: string | undefined;
}

function positive(flag: string, text: string | undefined, whole: boolean): Parsed<number | undefined> {
  if (text === undefined) return { ok: true, value: undefined };
  const value = Number(text);
  const fits = Number.isFinite(value) && value > 0 && (!whole || Number.isInteger(value));
  if (fits) return { ok: true, value };
  return refused([
    { path: flag, message: `expected a ${whole ? "whole " : ""}number above 0, got ${quoted(text)}` },
  ]);
}

/** The humps of a current trace in a CSV or WAV file. */
export function humpsOf(file: string, bytes: Uint8Array, flags: HumpsFlags): Parsed<Humps> {
  const scale = positive("--volts-per-amp", flags["volts-per-amp"], false);
  if (!scale.ok) return scale;
  const bars = positive("--bars", flags.bars, true);
  if (!bars.ok) return bars;
  const poles = positive("--poles", flags.poles, true);
  if (!poles.ok) return poles;
  const trace = /\.wav$/i.test(file)
    ? traceFromWav(bytes, scale.value)
    : traceFromCsv(new TextDecoder().decode(bytes), scale.value);
  if (!trace.ok) return trace;
  return { ok: true, value: readHumps(trace.value, { bars: bars.value, poles: poles.value }) };
}
