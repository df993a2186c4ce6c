import { ampsText, ohmsText, voltsText } from "../units/wording";
import type { Reading, Test, TestOf } from "./reading";

/** The set-up of a look in words: `key run, speed 2`. */
export function setupText(test: Test): string {
  const words: string[] = [`key ${test.key ?? "off"}`];
  if (test.engine) words.push("engine running");
  if (test.setting !== undefined) words.push(speedText(test.setting));
  for (const [id, setting] of Object.entries(test.selectors ?? {})) words.push(`${id} on ${setting}`);
  for (const id of test.unplugged ?? []) words.push(`${id} off`);
  for (const [one, other] of test.bridged ?? []) words.push(`${one} joined to ${other}`);
  if (test.lampFor) words.push(`lamp in place of ${test.lampFor}`);
  return words.join(", ");
}

const speedText = (setting: string): string => (/^\d+$/.test(setting) ? `speed ${setting}` : setting);

/** What to do, in a few words: `light clipped to G1.+, touch X5:2`. */
export function testText(test: Test): string {
  switch (test.test) {
    case "airflow":
      return `airflow on ${test.setting ?? "off"}`;
    case "light":
      return `light clipped to ${test.clip}, touch ${test.probe}`;
    case "volts":
      return `volts, red on ${test.red}, black on ${test.black}`;
    case "ohms":
      return `ohms from ${test.red} to ${test.black}`;
    case "look":
      return `look at ${test.at}`;
    case "spin":
      return `spin ${test.at} by hand`;
    case "amps":
      return `clamp round ${test.around}`;
    case "listen":
      return test.ventCovered ? "listen, a finger over the motor's vent hole" : "listen";
    case "smell":
      return "smell at the vent";
    case "history":
      return `ask: ${historyWords[test.of]}`;
    case "tap":
      return `tap or wiggle ${test.at}`;
    case "lampload":
      return `load lamp in place of ${test.lampFor}`;
    case "swap":
      return `known-good relay in place of ${test.at}`;
    case "ripple":
      return `current humps of ${test.at}`;
  }
}

/**
 * What was looked at and how the vehicle stood, as evidence is listed. What was heard of a running blower names
 * its speed already, and what was asked or smelled has no set-up worth saying.
 */
export function evidenceText(reading: Reading): string {
  const plain =
    reading.heard === true &&
    (reading.test !== "airflow" || (reading.key === "run" && reading.selectors === undefined));
  return plain ? testText(reading) : `${testText(reading)}, ${setupText(reading)}`;
}

/** What `history` asks. */
export const historyWords: Readonly<Record<TestOf<"history">["of"], string>> = {
  heat: "does heat change it",
  bumps: "do bumps change it",
  damp: "does damp change it",
  "wet-carpet": "is the carpet wet",
  "recent-work": "was there recent work on it",
  recall: "is there a recall on it",
};

/** What was seen, in a word or a figure with its unit. */
export function resultText(reading: Reading): string {
  if (reading.test === "volts") return voltsText(reading.volts);
  if (reading.test === "amps") return ampsText(reading.amps);
  if (reading.test === "listen" && reading.followsSpeed !== undefined && reading.seen !== "quiet")
    return `${reading.seen}, ${reading.followsSpeed ? "follows" : "does not follow"} the speed`;
  return reading.test === "ohms" ? ohmsText(reading.ohms) : reading.seen;
}
