import type { Declined } from "@core/circuit/declined";
import type { Conflict } from "@core/diagnose/explain/conflict";
import type { Cited, PathItem, Reason, SuspectWhy } from "@core/diagnose/explain/reasons";
import type { Cleared } from "@core/diagnose/verdict/cleared";
import { listed, minutesText, oddsText, percent } from "@core/units/wording";
import { setupText } from "./tests/setupText";
import { evidenceResult, expectationText, resultText, testText } from "./tests/testText";

/** A reading by its number and what it was: `reading 5 (light …, speed 2: dark)`. */
const citeText = ({ number, reading }: Cited): string =>
  `reading ${number} (${testText(reading)}, ${setupText(reading)}: ${resultText(reading)})`;

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Why a suspect stands where it does. */
export function suspectWhyText(why: SuspectWhy): string {
  switch (why.kind) {
    case "nothing-seen":
      return "Nothing seen yet: this is how often such a thing fails.";
    case "unlikely":
      return "Too unlikely to weigh now.";
    case "not-listed":
      return "Something outside the circuit's own parts, pins and wires; it grows when nothing listed explains what was seen.";
    case "weighed": {
      const { strongest, against } = why;
      const sentences = [
        ...(strongest
          ? [`For it: ${citeText(strongest.cited)}, ${oddsText(strongest.times)} against other parts.`]
          : []),
        ...(against
          ? [
              `Against it: ${citeText(against.cited)}; it predicts ${expectationText(against.expected)}, ${oddsText(against.times)} the other way.`,
            ]
          : []),
      ];
      return sentences.length > 0
        ? sentences.join(" ")
        : "It fits what was seen about as well as faults in other parts do.";
    }
  }
}

/** More names than this are a whole path, not a place to look. */
const mostNamed = 8;

const pathItemText = ({ kind, id }: PathItem): string => (kind === "part" ? id : `${kind} ${id}`);

function pathText({ dead, working, shared }: Extract<Reason, { kind: "path" }>): string {
  const many = dead.length > 1;
  const speeds = `Speed${many ? "s" : ""} ${listed(dead)} ${many ? "are" : "is"} dead`;
  const more = working.length > 1;
  const cleared =
    working.length > 0
      ? `; speed${more ? "s" : ""} ${listed(working)}, which ${more ? "go" : "goes"} round ${shared.length > 1 ? "them" : "it"}, ${more ? "work" : "works"}`
      : "";
  if (shared.length === 0)
    return `${speeds}, and no one part carries all of ${many ? "them" : "it"} alone${cleared ? " beside those that work" : ""}.`;
  const shares = many ? "share" : "needs";
  if (shared.length > mostNamed)
    return `${speeds} and ${shares} the whole way from feed to ground, ${shared.length} parts, pins and wires${cleared}.`;
  return `${speeds} and ${shares} ${listed(shared.map(pathItemText))}${cleared}.`;
}

function decidingText({ cited, rival, expected, times }: Extract<Reason, { kind: "deciding" }>): string {
  const shown = expectationText(expected);
  const instead = shown === resultText(cited.reading) ? "" : `; ${listed(rival)} would have shown ${shown}`;
  return `${capital(citeText(cited))}${instead}, ${oddsText(times)}.`;
}

/** Why a part's inside is left to the maker's procedure. */
export function declinedText({ part, reason }: Declined): string {
  return reason === "data-bus"
    ? `${part} talks over a data bus: Airway proves its fuses, feeds and grounds; what is said on the bus is the maker's procedure.`
    : `${part} is brushless: Airway proves its fuses, feeds and grounds; its electronics are the maker's procedure.`;
}

/** One reason behind a verdict, as a sentence. */
export function reasonText(reason: Reason): string {
  switch (reason.kind) {
    case "path":
      return pathText(reason);
    case "deciding":
      return decidingText(reason);
    case "declined":
      return declinedText(reason.declined);
    case "still-possible":
      return `Still possible: ${listed(reason.repairs.map(({ parts, p }) => `${parts.join(" with ")} ${percent(p)}`))}.`;
    case "nothing-pays":
      return "No look left with these tools is worth its minutes, so this is a best guess.";
    case "complaint-only":
      return "Only the complaint so far: nothing is settled on a complaint alone.";
    case "paying-test":
      return `The look that pays most: ${testText(reason.test)}, ${minutesText(reason.minutes)}.`;
  }
}

/** Readings that cannot all be right, and the one to repeat. */
export function conflictText({ slip, against }: Conflict): string {
  if (against.kind === "rest")
    return `Reading ${slip.number} (${evidenceResult(slip.reading)}) fights the others, which make it ${expectationText(against.expected)}; repeat it.`;
  const { other } = against;
  const [first, second] = slip.number < other.number ? [slip, other] : [other, slip];
  const name = ({ number, reading }: Cited): string => `${number} (${evidenceResult(reading)})`;
  return `Readings ${name(first)} and ${name(second)} cannot both be right; ${slip.number} is the likelier slip: repeat it.`;
}

/** What cleared a part. */
export const clearedText = ({ by, fault, expected, times }: Cleared): string =>
  `Cleared most by ${citeText(by)}: ${fault}, its likeliest fault left, predicts ${expectationText(expected)}; ${oddsText(times)}.`;
