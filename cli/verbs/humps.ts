import { type Parsed, quoted, refused } from "@core/problem/problem";
import { readRecording as readTraceFile } from "@core/recording/recordingFile";
import { readRipple } from "@core/ripple/readRipple";
import type { ProbeScale } from "@core/signal/probeScale";
import { type RippleInWords, rippleWords } from "@words/rippleWords";

/** The options of `humps` from the command line. */
export interface RippleFlags {
  readonly "volts-per-amp"?: string | undefined;
  readonly bars?: string | undefined;
  readonly poles?: string | undefined;
  readonly "amps-per-volt"?: string | undefined;
  readonly "shunt-ohms"?: string | undefined;
  readonly rpm?: string | undefined;
  readonly "about-rpm"?: string | undefined;
  readonly "chopping-hz"?: string | undefined;
  readonly "rate-hz"?: string | undefined;
  readonly column?: string | undefined;
}

function positive(flag: string, text: string | undefined, whole: boolean): Parsed<number | undefined> {
  if (text === undefined) return { ok: true, value: undefined };
  const value = Number(text);
  const fits = Number.isFinite(value) && value > 0 && (!whole || Number.isInteger(value));
  if (fits) return { ok: true, value };
  return refused([
    {
      code: "out-of-range",
      path: flag,
      message: `expected a ${whole ? "whole " : ""}number above 0, got ${quoted(text)}`,
    },
  ]);
}

/** The probe's scale from the flags; at most one of them may be given. */
function scaleOf(flags: RippleFlags): Parsed<ProbeScale | undefined> {
  const clamp = positive("--volts-per-amp", flags["volts-per-amp"], false);
  if (!clamp.ok) return clamp;
  const other = positive("--amps-per-volt", flags["amps-per-volt"], false);
  if (!other.ok) return other;
  const shunt = positive("--shunt-ohms", flags["shunt-ohms"], false);
  if (!shunt.ok) return shunt;
  const given: ProbeScale[] = [];
  if (clamp.value !== undefined) given.push({ kind: "volts-per-amp", voltsPerAmp: clamp.value });
  if (other.value !== undefined) given.push({ kind: "amps-per-volt", ampsPerVolt: other.value });
  if (shunt.value !== undefined) given.push({ kind: "shunt", ohms: shunt.value });
  if (given.length > 1)
    return refused([
      {
        code: "contradiction",
        path: "",
        message: "give one of --volts-per-amp, --amps-per-volt and --shunt-ohms",
      },
    ]);
  return { ok: true, value: given[0] };
}

/** The ripple of a current recording in a CSV or WAV file. */
export function rippleOf(file: string, bytes: Uint8Array, flags: RippleFlags): Parsed<RippleInWords> {
  const scale = scaleOf(flags);
  if (!scale.ok) return scale;
  const bars = positive("--bars", flags.bars, true);
  if (!bars.ok) return bars;
  const poles = positive("--poles", flags.poles, true);
  if (!poles.ok) return poles;
  const rpm = positive("--rpm", flags.rpm, false);
  if (!rpm.ok) return rpm;
  const aboutRpm = positive("--about-rpm", flags["about-rpm"], false);
  if (!aboutRpm.ok) return aboutRpm;
  const choppingHz = positive("--chopping-hz", flags["chopping-hz"], false);
  if (!choppingHz.ok) return choppingHz;
  const rateHz = positive("--rate-hz", flags["rate-hz"], false);
  if (!rateHz.ok) return rateHz;
  const column = positive("--column", flags.column, true);
  if (!column.ok) return column;
  const trace = readTraceFile(bytes, {
    kind: /\.wav$/i.test(file) ? "wav" : undefined,
    scale: scale.value,
    rateHz: rateHz.value,
    valueColumn: column.value === undefined ? undefined : column.value - 1,
  });
  if (!trace.ok) return trace;
  return {
    ok: true,
    value: rippleWords(
      readRipple(trace.value, {
        bars: bars.value,
        poles: poles.value,
        rpm: rpm.value,
        aboutRpm: aboutRpm.value,
        choppingHz: choppingHz.value,
      }),
    ),
  };
}
