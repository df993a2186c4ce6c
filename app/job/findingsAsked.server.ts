import { readingsBefore } from "@core/diagnose/history/failedRepair";
import { faultProved } from "@core/diagnose/proof/faultProved";
import { isTemporary } from "@core/labour/workDone";
import type { Reading } from "@core/predict/reading";
import type { ClosureFinding } from "@core/records/closure";
import { noFault } from "@core/records/learnedFaults";
import { partsMended, type WorkLine } from "@core/workList/workLine";
import { faultTitle } from "@words/partName";
import { workText } from "@words/workWords";
import { diagnosisFrom } from "./diagnosis.server";
import type { JobView } from "./jobView.server";

const faultsOffered = 8;

/** What was found in something that was worked on, as asked when the job closes. */
export interface FindingAsked {
  /** Name of its field. */
  readonly name: string;
  readonly round: number;
  readonly part: string;
  readonly words: string;
  /** True for what only buys time, from which nothing is learned. */
  readonly temporary: boolean;
  /** Faults of the part by the belief before the work, likeliest first, and whether the readings prove each. */
  readonly choices: readonly { readonly family: string; readonly words: string; readonly proved: boolean }[];
}

/** Readings of a job up to the work of a round: what its faults are judged by. */
interface Before {
  readonly readings: readonly Reading[];
  readonly repairs: JobView["repairs"];
}

function beforeRound(view: JobView, round: number): Before {
  const { stored, job, repairs } = view;
  const failed = repairs[round - 1];
  const taken = stored.flatMap(({ reading, struckAt, takenAt }) => (struckAt ? [] : [{ reading, takenAt }]));
  const until = failed
    ? failed.after
    : taken.filter(({ takenAt }) => !job.fittedAt || takenAt <= job.fittedAt).length;
  return {
    readings: taken.slice(0, until).map(({ reading }) => reading),
    repairs: repairs.slice(0, round - 1),
  };
}

/** A fault less likely than this on the readings is not learned, although its part is proved bad (judgement). */
const leastLearned = 0.02;

/** What is asked of every line of work on the circuit: which fault was found in it. */
export function findingsAsked(view: JobView): FindingAsked[] {
  const { circuit, engine, works } = view;
  const done = works.filter(
    (line): line is WorkLine & { readonly part: string } => line.state === "done" && line.part !== undefined,
  );
  return done.map((line) => {
    const { part, round } = line;
    const before = beforeRound(view, round);
    const { suspects } = diagnosisFrom(view, before.readings, { repairs: before.repairs });
    // Readings from before an earlier repair do not prove this one.
    const since = before.readings.slice(readingsBefore(before.repairs, before.readings.length));
    const own = new Set(partsMended(works.filter((other) => other.round === round))).add(part);
    const choices = suspects.flatMap(({ fault, p }) => {
      const index = engine.variants.findIndex(({ id }) => id === fault);
      const variant = engine.variants[index];
      if (!variant?.fault.parts.includes(part)) return [];
      return variant.fault.parts.every((other) => own.has(other)) ? [{ variant, index, p }] : [];
    });
    return {
      name: `finding-${round}-${part}`,
      round,
      part,
      words: workText(circuit, line),
      temporary: isTemporary(line),
      choices: choices.slice(0, faultsOffered).map(({ variant, index, p }) => ({
        family: variant.family,
        words: faultTitle(circuit, variant),
        proved: p >= leastLearned && faultProved(engine, since, index),
      })),
    };
  });
}

/**
 * What the form says was found, line by line; lines without an answer are left out.
 * @returns null if an answer is none of those offered
 */
export function findingsFrom(
  asked: readonly FindingAsked[],
  fields: Readonly<Record<string, string>>,
): ClosureFinding[] | null {
  const findings: ClosureFinding[] = [];
  for (const { name, round, part, choices, temporary } of asked) {
    const fault = fields[name] ?? "";
    if (fault === "") continue;
    const choice = choices.find(({ family }) => family === fault);
    if (!choice && !noFault.some((other) => other === fault)) return null;
    findings.push({ round, part, fault, proved: (choice?.proved ?? false) && !temporary });
  }
  return findings;
}
