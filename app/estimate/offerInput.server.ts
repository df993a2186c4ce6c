import { failsWithin, failureKind } from "@core/access/failureChance";
import { wearingKinds } from "@core/access/wearingPart";
import { usualRepair } from "@core/diagnose/verdict/stopping";
import { isTemporary, mends } from "@core/labour/workDone";
import { listedPriceMinor } from "@core/match/partDescription";
import type { OfferedWork, OfferInput } from "@core/money/repairOffer";
import { temporaryFails } from "@core/records/comebackOdds";
import { usualWork } from "@core/workList/proposedWork";
import { partsMended, partsRepaired, type WorkLine } from "@core/workList/workLine";
import { partSourcesOf } from "@db/repositories/partSources.server";
import { listParts } from "@db/repositories/parts.server";
import { repairOf } from "@db/repositories/repairs.server";
import { shopTerms } from "@db/repositories/settings.server";
import { labourTitle } from "@words/offerWords";
import { repairName } from "@words/partName";
import { plannedText } from "@words/workWords";
import { beliefCured, beliefIn, diagnosisFrom, diagnosisOf } from "../job/diagnosis.server";
import { activeReadings, type JobView, minutesTesting, presentWorks } from "../job/jobView.server";
import { type JobMatch, jobMatches } from "../parts/jobMatches.server";
import { labourOf } from "../repair/labour.server";
import { partsOfRound } from "../repair/repairState.server";

/** Work that fits something new, and so has a part to pay. */
const fitsNew: ReadonlySet<WorkLine["done"]> = new Set(["renewed", "spliced", "fitted"]);

/** A job's list in words, as an estimate keeps it. */
export const worksInWords = (view: JobView): string[] =>
  presentWorks(view).map((line) => plannedText(view.circuit, line));

/** What a new part costs the shop: from the source or the part chosen, otherwise as listed or usual. */
async function pricesOf({ circuit, job, costs }: JobView, matches: readonly JobMatch[]) {
  const [parts, sources] = await Promise.all([listParts(), partSourcesOf(job.id)]);
  return (id: string): number =>
    sources.find(({ part, chosen }) => chosen && part === id)?.priceMinor ??
    matches.find(({ part }) => part === id)?.fresh.priceMinor ??
    listedPriceMinor(parts, circuit.id, id) ??
    usualRepair(circuit, id, costs.repairs).priceMinor;
}

/** What offers need to know of a job: what a new part costs, and how often it fails within the warranty by itself. */
interface Usual {
  readonly priceOf: (id: string) => number;
  readonly failsOf: (id: string) => number;
}

/** A part of the circuit as work to offer: what is usually done to it. */
const offeredPart =
  ({ circuit }: JobView, { priceOf, failsOf }: Usual) =>
  (id: string): OfferedWork => {
    const done = usualWork(circuit, id);
    const name = repairName(circuit, [id]);
    return { id, name, done, priceMinor: fitsNew.has(done) ? priceOf(id) : null, failsAgain: failsOf(id) };
  };

/** A line of the work list as work to offer. */
const offeredLine =
  ({ circuit }: JobView, { priceOf, failsOf }: Usual) =>
  (line: WorkLine): OfferedWork => {
    const { id, part, what, done, priceMinor, adapts } = line;
    const byItself = part && mends(done) ? failsOf(part) : 0;
    const usual = part && fitsNew.has(done) && !adapts ? priceOf(part) : null;
    return {
      id: part ?? id,
      name: part ? repairName(circuit, [part]) : what,
      done,
      priceMinor: priceMinor === undefined ? usual : priceMinor || null,
      failsAgain: isTemporary(line) ? temporaryFails : byItself,
    };
  };

/** The input of a job's offers: its work list or verdict, its plan, its catalogue, the shop's terms. */
export async function offerInput(view: JobView): Promise<OfferInput> {
  const { job, circuit } = view;
  const lines = presentWorks(view);
  const matches = await jobMatches(job, circuit);
  const [terms, labour, fit, priceOf] = await Promise.all([
    shopTerms(),
    labourOf(view, lines, matches),
    repairOf(job.id),
    pricesOf(view, matches),
  ]);
  const diagnosis = diagnosisOf(view);
  const { verdict } = diagnosis;
  const doubt = (id: string): number => diagnosis.parts.find(({ part }) => part === id)?.p ?? 0;
  const fails = (id: string, doubted: number): number =>
    failsWithin(failureKind(circuit, id), terms.warrantyMonths, doubted);
  const usual: Usual = { priceOf, failsOf: (id) => fails(id, 0) };
  const offered = offeredPart(view, usual);
  const chosenParts = fit && fit.targets.length > 0 ? fit : null;
  const { parts: decided } = partsOfRound(view, chosenParts, verdict);
  const works = lines.length > 0 ? lines.map(offeredLine(view, usual)) : decided.map(offered);
  const outside = new Set(lines.flatMap(({ id, part }) => (part ? [] : [id])));
  const chosen = lines.length > 0 ? partsRepaired(lines) : decided;
  const renewed = new Set(partsMended(view.works));
  // A part that was proved good is not offered as one that could be renewed as well.
  const listed = new Set(lines.map(({ part }) => part));
  const isOpen = (id: string): boolean => !chosen.includes(id) && !listed.has(id) && !renewed.has(id);
  const causeId = [verdict.killedBy, ...verdict.alsoCheck].find((id) => id && isOpen(id));
  const beside = circuit.parts.find(({ id, kind }) => wearingKinds.has(kind) && isOpen(id) && id !== causeId);
  const { verdict: heard } = diagnosisFrom(
    view,
    activeReadings(view).filter((reading) => reading.heard),
    { repairs: [] },
  );
  const [guessed] = heard.replace;
  const guessId = guessed !== undefined && renewed.has(guessed) ? undefined : guessed;
  return {
    terms,
    works,
    cures: (list) =>
      beliefCured(
        diagnosis.suspects,
        list.map(({ id, done }) => ({ part: outside.has(id) ? undefined : id, done })),
      ),
    cause: causeId ? { ...offered(causeId), killsAgain: fails(causeId, doubt(causeId)) } : null,
    beside: beside ? offered(beside.id) : null,
    // The part that usually causes the complaint, with today's probability.
    guess: guessId ? { ...offered(guessId), p: beliefIn(diagnosis.suspects, [guessId]) } : null,
    labourTitle,
    ...labour,
    diagnosisMinutes: minutesTesting(view.engine, activeReadings(view)),
  };
}
