import type { Writable } from "node:stream";
import { notListed, repairText } from "@core/fault/repair";
import type { DiagnosedCase } from "@core/formats/diagnoseCase";
import type { DiagnosedSeenCase } from "@core/formats/seenCase";
import { type Parsed, problemText } from "@core/problem/problem";
import type { OperatingPoint } from "@core/solve/operatingPoint";
import { ampsText, listed, minutesText, percent, voltsText } from "@core/units/wording";
import { conflictText, reasonText } from "@words/reasonWords";
import type { RippleInWords } from "@words/rippleWords";
import { setupText } from "@words/tests/setupText";
import { testText } from "@words/tests/testText";
import { wiringReport } from "@words/wiringWords";
import { BadInput } from "./input";
import type { MatchAnswer } from "./verbs/match";
import type { RouteAnswer } from "./verbs/route";

/** The value of a parse; or bad input, with the first problem. */
export function accept<T>(parsed: Parsed<T>): T {
  if (parsed.ok) return parsed.value;
  const [first] = parsed.problems;
  const more = parsed.problems.length > 1 ? ` (and ${parsed.problems.length - 1} more)` : "";
  throw new BadInput(`${first ? problemText(first) : "refused"}${more}`);
}

/** Writes JSON, or lines of text with `--text`. */
export function print(output: Writable, value: unknown, text: readonly string[] | null): void {
  output.write(text ? `${text.join("\n")}\n` : `${JSON.stringify(value, null, 2)}\n`);
}

/** An operating point for people: volts by point, then currents. */
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

/** A diagnosis for people: verdict, suspects, next test. */
export function diagnosisLines({ circuit, diagnosis }: DiagnosedCase): string[] {
  const { verdict, parts, next, conflicts } = diagnosis;
  const [test] = next;
  return [
    `${verdict.state}: replace ${listed(verdict.replace)}, ${percent(verdict.p)}`,
    ...verdict.because.map((reason) => reasonText(circuit, reason)),
    `suspects: ${parts
      .slice(0, 5)
      .map(({ part, p }) => `${part ?? repairText(notListed)} ${percent(p)}`)
      .join(", ")}`,
    ...(test
      ? [
          `next: ${testText(circuit, test.test)} (${setupText(circuit, test.test)}), ${minutesText(test.minutes)}`,
        ]
      : []),
    ...conflicts.map((conflict) => conflictText(circuit, conflict)),
  ];
}

/** A diagnosis without a diagram for people: verdict, suspects, wirings, next test. */
export function wiringLines(seen: DiagnosedSeenCase): string[] {
  const { verdict, parts, next, circuits } = wiringReport(seen);
  const [test] = next;
  return [
    `${verdict.state}: replace ${listed(verdict.replace)}, ${percent(verdict.p)}`,
    ...verdict.because,
    `suspects: ${parts
      .slice(0, 5)
      .map(({ part, p }) => `${part} ${percent(p)}`)
      .join(", ")}`,
    ...circuits.slice(0, 5).map(({ title, p }) => `wiring: ${title}, ${percent(p)}`),
    ...(test ? [`next: ${JSON.stringify(test.test)}, ${minutesText(test.minutes)}`] : []),
  ];
}

/** A motor's ripple for people. */
export function rippleLines(ripple: RippleInWords): string[] {
  const { meanAmps, humpHz, rpm, badHumps, verdict, because, cannot, startUp, chopping, dropoutCount } =
    ripple;
  return [
    `${verdict}: ${because}`,
    `${ampsText(meanAmps)} mean`,
    ...(humpHz === null ? [] : [`${humpHz.toFixed(1)} ripples per second`]),
    ...(rpm === null ? [] : [`${Math.round(rpm)} rpm`]),
    ...(badHumps.length > 0 ? [`bad ripples, counted from 0: ${badHumps.join(", ")}`] : []),
    ...(startUp === null ? [] : [`inrush ${ampsText(startUp.inrushAmps)}`]),
    ...(chopping === null ? [] : [`PWM at ${chopping.hz.toFixed(0)} Hz, removed`]),
    ...(dropoutCount === 0 ? [] : [`${dropoutCount} gaps without current`]),
    ...cannot.map((reason) => `cannot: ${reason}`),
  ];
}

/** Removal and refitting for people. */
export function routeLines({
  minutes,
  steps,
  tools,
  substitutes,
  back,
  nextPersonMinutes,
}: RouteAnswer): string[] {
  return [
    `${minutesText(minutes)}, with ${listed(tools) || "bare hands"}`,
    ...steps.map(({ title, minutes: own }, i) => `${i + 1}. ${title} (${minutesText(own)})`),
    "back:",
    ...back.map((title, i) => `${i + 1}. ${title}`),
    ...substitutes.map(
      ({ tool, instead, errorMillimetres, fit }) =>
        `or ${instead} for ${tool}: ${errorMillimetres} mm, ${fit}`,
    ),
    ...(nextPersonMinutes > 0 ? [`extra work for the next person: ${minutesText(nextPersonMinutes)}`] : []),
  ];
}

/** The old part against the new one, for people. */
export function matchLines({ verdict, differences, leads, workMinutes }: MatchAnswer): string[] {
  return [
    `${verdict}${workMinutes > 0 ? `, ${minutesText(workMinutes)} of work` : ""}`,
    ...differences.map(({ feature, judgement, because }) => `${feature}: ${judgement}, ${because}`),
    ...(leads?.refusals.map((why) => `do not splice: ${why}`) ?? []),
    ...(leads?.joints.map(
      ({ pin, lead, wire, crimp }) => `pin ${pin}: ${lead.colour} to ${wire.id} ${wire.colour}, ${crimp}`,
    ) ?? []),
  ];
}
