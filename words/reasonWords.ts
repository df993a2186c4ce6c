import type { Circuit } from "@core/circuit/circuit";
import type { Declined } from "@core/circuit/declined";
import type { Conflict } from "@core/diagnose/explain/conflict";
import type { Cited, Reason, SuspectWhy } from "@core/diagnose/explain/reasons";
import type { Cleared } from "@core/diagnose/verdict/cleared";
import { listed, minutesText, oddsText, percent } from "@core/units/wording";
import { faultWords, repairName } from "./partName";
import { capitalised, seenText } from "./seenName";
import { setupText } from "./tests/setupText";
import { evidenceResult, evidenceText, expectationText, resultText, testText } from "./tests/testText";
import { proofText } from "./whatProves";

/** A reading by its number and what it was: `reading 5 (test light …, speed 2: dark)`. */
const citeText = (circuit: Circuit, { number, reading }: Cited): string =>
  `reading ${number} (${testText(circuit, reading)}, ${setupText(circuit, reading)}: ${resultText(reading)})`;

/** The strength of a reading, by how many times likelier it made one side. The steps are a judgement, no source. */
function strengthText(times: number): string {
  if (times >= 20) return "Strong evidence";
  if (times >= 5) return "Clear evidence";
  return times >= 2 ? "Some evidence" : "Weak evidence";
}

/** Why a suspect has its rank. */
export function suspectWhyText(circuit: Circuit, why: SuspectWhy): string {
  switch (why.kind) {
    case "nothing-seen":
      return "No readings yet. This is how often this fault occurs.";
    case "unlikely":
      return "Too unlikely to examine now.";
    case "not-listed":
      return "Something outside the parts, pins and wires of this circuit. It becomes more likely when no listed fault explains the readings.";
    case "weighed": {
      const { strongest, against } = why;
      const sentences = [
        ...(strongest
          ? [`${strengthText(strongest.times)} for it: ${citeText(circuit, strongest.cited)}.`]
          : []),
        ...(against
          ? [
              `${strengthText(against.times)} against it: ${citeText(circuit, against.cited)}. This fault would give ${expectationText(against.expected)}.`,
            ]
          : []),
      ];
      return sentences.length > 0
        ? sentences.join(" ")
        : "It fits the readings about as well as faults in other parts do.";
    }
  }
}

/** Number of names beyond which they are a whole path, not a place to look. */
const mostNamed = 8;

function pathText(circuit: Circuit, { dead, working, shared }: Extract<Reason, { kind: "path" }>): string {
  const many = dead.length > 1;
  const speeds = `Speed${many ? "s" : ""} ${listed(dead)} ${many ? "are" : "is"} dead`;
  const more = working.length > 1;
  const works = `speed${more ? "s" : ""} ${listed(working)} ${more ? "work" : "works"}`;
  if (shared.length === 0) {
    const explained = `no single part explains ${many ? "all of them" : "it"}`;
    return working.length > 0 ? `${speeds}. Because ${works}, ${explained}.` : `${speeds}, and ${explained}.`;
  }
  const needed =
    shared.length > mostNamed
      ? `the whole path from feed to ground: ${shared.length} parts, pins and wires`
      : shared.map(({ id }) => seenText(circuit, id)).join("; ");
  const without =
    working.length > 0 ? ` ${capitalised(works)} without ${shared.length > 1 ? "them" : "it"}.` : "";
  return `${speeds} and ${many ? "all need" : "needs"} ${needed}.${without}`;
}

function decidingText(
  circuit: Circuit,
  { cited, rival, expected, sound }: Extract<Reason, { kind: "deciding" }>,
): string {
  const { number, reading } = cited;
  const seen = resultText(reading);
  const healthy = expectationText(sound);
  const instead = expectationText(expected);
  const beside = healthy === seen ? "as in a sound vehicle" : `a sound vehicle shows ${healthy}`;
  const ruledOut =
    instead === seen ? "" : ` With a fault in ${repairName(circuit, rival)} it would be ${instead}.`;
  return `${capitalised(evidenceText(circuit, reading))}: ${seen}, ${beside} (reading ${number}).${ruledOut}`;
}

/** `reading 5`, `readings 5 and 6`. */
const numbersText = (cited: readonly Cited[]): string =>
  `reading${cited.length > 1 ? "s" : ""} ${listed(cited.map(({ number }) => String(number)))}`;

/** Why a part is left to the maker's procedure. */
export function declinedText(circuit: Circuit, { part, reason }: Declined): string {
  const name = repairName(circuit, [part]);
  return reason === "data-bus"
    ? `The ${name} communicates over a data bus. Airway checks its fuses, feeds and grounds; follow the maker's procedure for the bus.`
    : `The ${name} is brushless. Airway checks its fuses, feeds and grounds; follow the maker's procedure for its electronics.`;
}

/** One reason for a verdict, as a sentence. */
export function reasonText(circuit: Circuit, reason: Reason): string {
  switch (reason.kind) {
    case "path":
      return pathText(circuit, reason);
    case "deciding":
      return decidingText(circuit, reason);
    case "proved":
      return `${proofText(circuit, reason.part, reason.says)} (${numbersText(reason.cited)}).`;
    case "renew-too": {
      const name = repairName(circuit, [reason.at]);
      return reason.seen === "wet"
        ? `The ${name} was seen wet: find the leak, and dry or renew it.`
        : `The ${name} was seen ${reason.seen === "debris" ? "with debris in it" : reason.seen}: put that right too.`;
    }
    case "unproved":
      return `Almost certain, but not proved. Prove it first: ${testText(circuit, reason.test)}.`;
    case "declined":
      return declinedText(circuit, reason.declined);
    case "wiring-assumed":
      return "Nobody has seen how this circuit is wired, so the verdict stays a best guess.";
    case "still-possible":
      return `Also possible: ${listed(reason.repairs.map(({ parts, p }) => `${repairName(circuit, parts)} (${percent(p)})`))}.`;
    case "nothing-pays":
      return "No test left with these tools is worth its time, so this is a best guess.";
    case "disputed":
      return `Even repeated, ${citeText(circuit, reason.cited)} contradicts the other readings, so this is a best guess.`;
    case "complaint-only":
      return "So far there is only the complaint. A complaint alone never confirms a verdict.";
    case "paying-test":
      return `Most useful next test: ${testText(circuit, reason.test)}, ${minutesText(reason.minutes)}.`;
  }
}

/** The figure behind a reason, for the details; null if there is none. */
export const reasonFigure = (reason: Reason): string | null =>
  reason.kind === "deciding"
    ? `Reading ${reason.cited.number} is ${oddsText(reason.times)} in favour of this verdict over the next most likely one.`
    : null;

/** Readings that cannot all be right, and which one to repeat. */
export function conflictText(circuit: Circuit, { slip, against }: Conflict): string {
  const name = ({ number, reading }: Cited): string => `${number} (${evidenceResult(circuit, reading)})`;
  if (against.kind === "rest")
    return `Reading ${name(slip)} contradicts the others, which predict ${expectationText(against.expected)}. Repeat it.`;
  const { other } = against;
  const [first, second] = slip.number < other.number ? [slip, other] : [other, slip];
  return `Readings ${name(first)} and ${name(second)} cannot both be right. Reading ${slip.number} is more likely to be wrong: repeat it.`;
}

/** What cleared a part. */
export const clearedText = (circuit: Circuit, { by, fault, expected }: Cleared): string =>
  `Cleared mainly by ${citeText(circuit, by)}. Its most likely remaining fault (${faultWords(fault)}) would give ${expectationText(expected)}.`;
