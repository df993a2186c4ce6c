import { failureKind } from "@core/access/failureChance";
import type { Circuit } from "@core/circuit/circuit";
import type { Diagnosis } from "@core/diagnose/diagnose";
import { motorsToCheck } from "@core/diagnose/verdict/verdict";
import { isTemporary } from "@core/labour/workDone";
import { priced } from "@core/money/estimate";
import { type ComebackOdds, comebackOdds } from "@core/records/comebackOdds";
import { listed } from "@core/units/wording";
import { type Cure, partsMended } from "@core/workList/workLine";
import { closureOf } from "@db/repositories/closures.server";
import { estimatesOf } from "@db/repositories/estimates.server";
import { comebacksOf } from "@db/repositories/jobs.server";
import { matchesOf } from "@db/repositories/parts.server";
import { recordingsOf } from "@db/repositories/recordings.server";
import { shopTerms } from "@db/repositories/settings.server";
import { complaintSummary } from "@words/complaintSummary";
import { partName, repairName } from "@words/partName";
import { reasonText } from "@words/reasonWords";
import { sentence } from "@words/seenName";
import { doneWords, plainWorkName, workText } from "@words/workWords";
import { type CheckData, checkView } from "../check/checkView.server";
import { beliefCured, diagnosisOf } from "../job/diagnosis.server";
import { findingsAsked } from "../job/findingsAsked.server";
import { activeReadings, evidenceLines, type JobView, jobViewAt, noteLines } from "../job/jobView.server";
import { acceptedDifferences, screwsLeft } from "../repair/repairRemarks.server";
import { dayText, wallText } from "../text/clock";
import { priceText } from "../text/money";
import { shopZone } from "../text/shopZone.server";
import { roundsOf } from "../workList/rounds.server";
import { closureView, wrongInPlainWords } from "./closureView.server";

/** Parts that were put right on this job, in any round; what was fitted on jobs from before there was a work list. */
export const repairedParts = ({ job, works }: JobView): readonly string[] => {
  const mended = partsMended(works);
  return mended.length > 0 ? mended : (job.fitted ?? []);
};

/** What may have caused the failure of the fitted parts, and the comeback risk with and without the advised work. */
export async function afterwards(view: JobView): Promise<{ advised: string | null; odds: ComebackOdds }> {
  const { circuit } = view;
  const { warrantyMonths } = await shopTerms();
  const { verdict, parts, suspects } = diagnosisOf(view);
  const fitted = repairedParts(view);
  const done = view.works.filter(({ state }) => state === "done");
  const kindOf = (id: string) => failureKind(circuit, id);
  // A part left in that may have burnt out what was renewed, whatever the verdict names now.
  const cause = [
    verdict.killedBy,
    ...verdict.alsoCheck,
    ...motorsToCheck(view.engine, fitted, activeReadings(view)),
  ].find((id) => id && !fitted.includes(id));
  return {
    advised: cause ?? null,
    odds: comebackOdds({
      months: warrantyMonths,
      fitted: fitted.map(kindOf),
      cured: beliefCured(suspects, [...done, ...fitted.map((part): Cure => ({ part, done: "renewed" }))]),
      temporary: done.some(isTemporary),
      advised: cause
        ? { kind: kindOf(cause), doubt: parts.find(({ part }) => part === cause)?.p ?? 0 }
        : null,
    }),
  };
}

/** Recordings of a job, and whether they were made before or after its repair. */
const recordingLines = (job: JobView["job"], traces: Awaited<ReturnType<typeof recordingsOf>>) =>
  traces
    .filter(({ struckAt }) => !struckAt)
    .map(({ id: trace, record, takenAt }) => ({
      id: trace,
      name: record.name,
      setting: record.setup.setting,
      when: job.fittedAt && takenAt > job.fittedAt ? ("after" as const) : ("before" as const),
      humps: record.kind === "humps" ? record.figures : null,
      noise: record.kind === "sound" ? record.figures.likeliest : null,
    }));

/** The motor's current as measured in the final check, speed by speed, with its band. */
const provenDraw = (proof: Awaited<ReturnType<typeof checkView>>) =>
  proof.steps.flatMap(({ id: step, phase, bands, finding, judged }) =>
    phase === "open" && step.startsWith("up-") && bands && finding?.by === "amps"
      ? [
          {
            setting: step.slice("up-".length),
            amps: finding.amps,
            low: Math.max(0, bands.amps.low),
            high: bands.amps.high,
            right: judged === "right",
          },
        ]
      : [],
  );

/** The verdict in the card's words. */
const verdictView = (circuit: Circuit, { verdict }: Diagnosis) => ({
  name: repairName(circuit, verdict.replace),
  p: verdict.p,
  state: verdict.state,
  because: verdict.because.map((reason) => reasonText(circuit, reason)),
  killer: verdict.killedBy ? partName(circuit, verdict.killedBy) : null,
});

/**
 * What was done, round by round, with the diagram's names and with a customer's; a line without a part number gets that
 * of the part compared.
 */
function workDone(
  circuit: Circuit,
  rounds: Awaited<ReturnType<typeof roundsOf>>,
  matches: Awaited<ReturnType<typeof matchesOf>>,
) {
  const compared = (part: string | undefined) => matches.find((own) => own.part === part)?.newNumber;
  return rounds.flatMap(({ number, outcome, lines }) => {
    const done = lines
      .filter(({ state }) => state === "done")
      .map((line) => ({ ...line, number: line.number ?? compared(line.part) ?? undefined }));
    const words = done.map((line) => workText(circuit, line));
    const plainWords = done.map((line) => workText(circuit, line, plainWorkName(circuit, line)));
    return words.length > 0 ? [{ number, failed: outcome === "failed", words, plainWords }] : [];
  });
}

const inOneText = (worked: ReturnType<typeof workDone>): string =>
  worked
    .map(({ words, failed }) => `${sentence(words.join(", "))}${failed ? " That did not cure it." : ""}`)
    .join(" ");

/** A step of the final check in the card's words. */
const provenStep = ({ id, title, phase, expected, found, judged }: CheckData["steps"][number]) => ({
  id,
  title,
  phase,
  expected,
  found,
  judged,
});

/** Everything the close page and the card for the file show of a job. */
export async function closeView(id: string | undefined) {
  const view = await jobViewAt(id);
  const { job, circuit } = view;
  const diagnosis = diagnosisOf(view);
  const zone = shopZone();
  const [proof, rounds, stored, estimates, matches, traces, after, comebacks, accepted, screws] =
    await Promise.all([
      checkView(job, circuit),
      roundsOf(view),
      closureOf(job.id),
      estimatesOf(job.id),
      matchesOf(job.id),
      recordingsOf(job.id),
      afterwards(view),
      comebacksOf(job.id),
      acceptedDifferences(job, circuit),
      screwsLeft(job, circuit),
    ]);
  const bill =
    estimates.findLast(({ kind }) => kind === "bill") ?? estimates.findLast(({ approvedAt }) => approvedAt);
  const closure = stored?.closure ?? null;
  const worked = workDone(circuit, rounds, matches);
  const inOne = inOneText(worked);
  // What was only taken over from the list says nothing more than the list.
  const ownWords = job.found === inOne ? null : job.found;
  return {
    id: job.id,
    stage: job.stage,
    deleted: job.deletedAt !== null,
    vehicleId: job.vehicle.id,
    vehicle: `${job.vehicle.model}, ${job.vehicle.label}`,
    circuit: circuit.title,
    came: dayText(job.createdAt, zone),
    closed: job.closedAt ? dayText(job.closedAt, zone) : null,
    words: job.words || complaintSummary(circuit, activeReadings(view)),
    evidence: evidenceLines(view.circuit, view.stored).filter(({ struck }) => !struck),
    notes: noteLines(view.notes.filter(({ struckAt }) => !struckAt)),
    verdict: verdictView(circuit, diagnosis),
    recordings: recordingLines(job, traces),
    /** Whether the work of the present round is done. */
    worked: job.fittedAt !== null,
    rounds: worked,
    /** Who did the work. */
    doneBy: [...new Set(rounds.flatMap(({ lines }) => lines.flatMap(({ doneBy }) => doneBy ?? [])))],
    /** The work in one text, as the close page offers it. */
    listed: inOne,
    /** The warranty on what was done, line by line. */
    warranties: rounds
      .flatMap(({ lines }) => lines)
      .flatMap((line) => {
        const { state, warrantyMonths = 0 } = line;
        const months = `${warrantyMonths} ${warrantyMonths === 1 ? "month" : "months"}`;
        return state === "done" && warrantyMonths > 0 ? [`${plainWorkName(circuit, line)}: ${months}`] : [];
      }),
    /** What the next person should know of the repair. */
    remarks: [...accepted, ...screws.remarks],
    /** Screws that are not accounted for yet. The job cannot be closed while there are any. */
    screwsOpen: screws.open,
    /** What the last round only bought time with, as the close page offers it. */
    stopgaps: listed(
      (rounds.at(-1)?.lines ?? []).flatMap((line) =>
        line.state === "done" && isTemporary(line)
          ? [`${plainWorkName(circuit, line)} ${doneWords[line.done]}`]
          : [],
      ),
    ),
    temporary: rounds
      .flatMap(({ lines }) => lines)
      .some((line) => line.state === "done" && isTemporary(line)),
    found: ownWords,
    closure: closure && closureView(view, closure),
    faultPlain: stored ? wrongInPlainWords(view, stored, ownWords) : ownWords,
    minutes: stored && {
      looks: stored.looks,
      looking: stored.minutes,
      chart: stored.chartMinutes,
      repair: stored.repairMinutes,
    },
    asked: job.stage === "proof-due" ? findingsAsked(view) : [],
    advised: after.advised ? partName(circuit, after.advised) : null,
    odds: closure?.comeback ?? after.odds,
    /**
     * The motor's current as measured in the final check before the panels went back, speed by speed, with its band.
     */
    draw: provenDraw(proof),
    proof: {
      whole: proof.whole,
      steps: proof.steps.map(provenStep),
    },
    bill: bill ? { kind: bill.kind, number: bill.number, total: totalText(bill.body) } : null,
    comebackOf: job.comebackOf,
    comebacks,
    today: wallText(new Date(), zone).slice(0, 10),
  };
}

export type CloseData = Awaited<ReturnType<typeof closeView>>;

const totalText = (body: Awaited<ReturnType<typeof estimatesOf>>[number]["body"]): string =>
  priceText(priced(body.lines, body.rounding).totalMinor, body.currency);
