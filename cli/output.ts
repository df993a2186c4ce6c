import type { Diagnosis } from "@core/diagnose/diagnose";
import { type Parsed, problemText } from "@core/formats/problem";
import { lookText, setupText } from "@core/predict/readingText";
import type { OperatingPoint } from "@core/solve/operatingPoint";
import { listed, minutesText, percent, voltsText } from "@core/units/wording";
import { BadInput } from "./input";

/** The value of a parse, or bad input naming the first problem. */
export function accept<T>(parsed: Parsed<T>): T {
  if (parsed.ok) return parsed.value;
  const [first] = parsed.problems;
  const more = parsed.problems.length > 1 ? ` (and ${parsed.problems.length - 1} more)` : "";
  throw new BadInput(`${first ? problemText(first) : "refused"}${more}`);
}

/** Writes JSON, or lines of text with `--text`. */
export function print(value: unknown, text: readonly string[] | null): void {
  process.stdout.write(text ? `${text.join("\n")}\n` : `${JSON.stringify(value, null, 2)}\n`);
}

/** An operating point for people: volts by point, then what flows. */
export function pointLines(point: OperatingPoint): string[] {
  return [
    ...Object.entries(point.volts).map(
      ([name, volts]) => `${name}\t${volts === null ? "floating" : voltsText(volts)}`,
    ),
    ...Object.entries(point.amps).map(([name, amps]) => `${name}\t${amps.toFixed(2)} A`),
    ...Object.entries(point.rpm).map(([name, rpm]) => `${name}\t${Math.round(rpm)} rpm`),
    ...point.buzzing.map((relay) => `${relay}\tbuzzes`),
  ];
}

/** A diagnosis for people: verdict, suspects, next look. */
export function diagnosisLines({ verdict, parts, next, conflicts }: Diagnosis): string[] {
  const [look] = next;
  return [
    `${verdict.state}: replace ${listed(verdict.replace)}, ${percent(verdict.p)}`,
    ...verdict.because,
    `suspects: ${parts
      .slice(0, 5)
      .map(({ part, p }) => `${part} ${percent(p)}`)
      .join(", ")}`,
    ...(look ? [`next: ${lookText(look.test)} (${setupText(look.test)}), ${minutesText(look.minutes)}`] : []),
    ...conflicts.map(({ why }) => why),
  ];
}
