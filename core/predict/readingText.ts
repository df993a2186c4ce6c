import { ampsText, ohmsText, voltsText } from "../units/wording";
import type { Look, LookOf, Reading } from "./reading";

/** The set-up of a look in words: `key run, speed 2`. */
export function setupText(look: Look): string {
  const words: string[] = [`key ${look.key ?? "off"}`];
  if (look.engine) words.push("engine running");
  if (look.setting !== undefined) words.push(speedText(look.setting));
  for (const [id, setting] of Object.entries(look.selectors ?? {})) words.push(`${id} on ${setting}`);
  for (const id of look.unplugged ?? []) words.push(`${id} off`);
  for (const [one, other] of look.bridged ?? []) words.push(`${one} joined to ${other}`);
  if (look.lampFor) words.push(`lamp in place of ${look.lampFor}`);
  return words.join(", ");
}

const speedText = (setting: string): string => (/^\d+$/.test(setting) ? `speed ${setting}` : setting);

/** What to do, in a few words: `light clipped to G1.+, touch X5:2`. */
export function lookText(look: Look): string {
  switch (look.test) {
    case "airflow":
      return `airflow on ${look.setting ?? "off"}`;
    case "light":
      return `light clipped to ${look.clip}, touch ${look.probe}`;
    case "volts":
      return `volts, red on ${look.red}, black on ${look.black}`;
    case "ohms":
      return `ohms from ${look.red} to ${look.black}`;
    case "look":
      return `look at ${look.at}`;
    case "spin":
      return `spin ${look.at} by hand`;
    case "amps":
      return `clamp round ${look.around}`;
    case "listen":
      return look.ventCovered ? "listen, a finger over the motor's vent hole" : "listen";
    case "smell":
      return "smell at the vent";
    case "history":
      return `ask: ${historyWords[look.of]}`;
    case "tap":
      return `tap or wiggle ${look.at}`;
    case "lampload":
      return `load lamp in place of ${look.lampFor}`;
    case "swap":
      return `known-good relay in place of ${look.at}`;
    case "ripple":
      return `current humps of ${look.at}`;
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
  return plain ? lookText(reading) : `${lookText(reading)}, ${setupText(reading)}`;
}

/** What `history` asks. */
export const historyWords: Readonly<Record<LookOf<"history">["of"], string>> = {
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
