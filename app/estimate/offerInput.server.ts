import { failsWithin } from "@core/access/failureChance";
import { quickestRoute } from "@core/access/route";
import { learntMinutes, shopPace } from "@core/access/stepTimes";
import { wearingKinds } from "@core/access/wearingPart";
import { usualRepair } from "@core/diagnose/verdict/stopping";
import { listedPriceMinor } from "@core/match/partDescription";
import { bookMinutes } from "@core/money/bookTime";
import type { OfferedWork, OfferInput } from "@core/money/repairOffer";
import { usualWork } from "@core/workList/proposedWork";
import { isTemporary, partsMended, partsRepaired, type WorkLine } from "@core/workList/workLine";
import { bookTimesOf } from "@db/repositories/bookTimes.server";
import { partSourcesOf } from "@db/repositories/partSources.server";
import { listParts } from "@db/repositories/parts.server";
import { findPlan } from "@db/repositories/plans.server";
import { measuredSteps, repairOf } from "@db/repositories/repairs.server";
import { shopTerms } from "@db/repositories/settings.server";
import { labourTitle } from "@words/offerWords";
import { repairName } from "@words/partName";
import { plannedText } from "@words/workWords";
import { beliefIn, diagnosisFrom, diagnosisOf } from "../job/diagnosis.server";
import { activeReadings, type JobView, minutesTesting, presentRound } from "../job/jobView.server";
import { type JobMatch, jobMatches } from "../parts/jobMatches.server";
import { partsOfRound } from "../repair/repairState.server";

/** Minutes of the final check: key on, every speed, listening (judgement). */
export const proofMinutes = 5;

/** Probability that a temporary repair does not last the warranty (judgement, no source). */
const temporaryFails = 0.5;

/** Work that fits something new, and so has a part to pay. */
const fitsNew: ReadonlySet<WorkLine["done"]> = new Set(["renewed", "spliced", "fitted"]);

/** The lines of work of the present round: what an earlier round did is on the bill already. */
const presentWorks = (view: JobView): readonly WorkLine[] =>
  view.works.filter(({ round }) => round === presentRound(view));

/** A job's list in words, as an estimate keeps it. */
export const worksInWords = (view: JobView): string[] =>
  presentWorks(view).map((line) => plannedText(view.circuit, line));

/**
 * Minutes at the car for several lines of work together. They are the sum of removal and refitting by the plan at this
 * shop's pace, with shared steps counted once; the adaptations of the new parts; the planned minutes of anything else;
 * and the final check. Book time uses the hours entered for the model in place of removal and refitting.
 */
async function labourOf(view: JobView, lines: readonly WorkLine[], matches: readonly JobMatch[]) {
  const { circuit, job } = view;
  const [stored, fit, measured, entered] = await Promise.all([
    findPlan(circuit.id),
    repairOf(job.id),
    measuredSteps(circuit.id),
    bookTimesOf(circuit.id),
  ]);
  const pace = stored ? shopPace(stored.plan, measured) : null;
  const isReached = (id: string): boolean => stored !== null && Object.hasOwn(stored.plan.targets, id);
  /** Minutes of a line that no route leads to; an adaptation is counted with the part it is done for. */
  const outside = (id: string): number => {
    const line = lines.find((own) => (own.part ?? own.id) === id);
    if (line?.adapts) return 0;
    return line && !line.part
      ? (line.plannedMinutes ?? 0)
      : usualRepair(circuit, id, view.costs.repairs).minutes;
  };
  const access = (ids: readonly string[], book: boolean): number => {
    const reached = ids.filter(isReached);
    const route =
      stored && pace && reached.length > 0
        ? quickestRoute(stored.plan, reached, {
            prefer: book ? "book" : (fit?.prefer ?? "quickest"),
            ...(book ? {} : { minutesOf: (step) => learntMinutes(step, pace, measured).minutes }),
          })
        : null;
    const others = route?.ok ? ids.filter((id) => !isReached(id)) : ids;
    return (route?.ok ? 2 * route.value.minutes : 0) + others.reduce((sum, id) => sum + outside(id), 0);
  };
  const adapting = (ids: readonly string[]): number =>
    ids.reduce((sum, id) => sum + (matches.find(({ part }) => part === id)?.match?.workMinutes ?? 0), 0);
  return {
    labourMinutes: (ids: readonly string[]): number => access(ids, false) + adapting(ids) + proofMinutes,
    bookMinutes: (ids: readonly string[]): number =>
      bookMinutes(ids, {
        entered,
        alone: (id) => access([id], true),
        together: (own) => access(own, true),
      }) +
      adapting(ids) +
      proofMinutes,
  };
}

/** What a new part costs the shop: from the source or the part chosen, otherwise as listed or usual. */
async function pricesOf({ circuit, job, costs }: JobView, matches: readonly JobMatch[]) {
  const [parts, sources] = await Promise.all([listParts(), partSourcesOf(job.id)]);
  return (id: string): number =>
    sources.find(({ part, chosen }) => chosen && part === id)?.priceMinor ??
    matches.find(({ part }) => part === id)?.fresh.priceMinor ??
    listedPriceMinor(parts, circuit.id, id) ??
    usualRepair(circuit, id, costs.repairs).priceMinor;
}

/** A part of the circuit as work to offer: what is usually done to it. */
const offeredPart =
  ({ circuit }: JobView, priceOf: (id: string) => number) =>
  (id: string): OfferedWork => {
    const done = usualWork(circuit, id);
    const name = repairName(circuit, [id]);
    return { id, name, done, priceMinor: fitsNew.has(done) ? priceOf(id) : null, failsAgain: 0 };
  };

/** A line of the work list as work to offer. */
const offeredLine =
  ({ circuit }: JobView, priceOf: (id: string) => number) =>
  (line: WorkLine): OfferedWork => {
    const { id, part, what, done, priceMinor, adapts } = line;
    const usual = part && fitsNew.has(done) && !adapts ? priceOf(part) : null;
    return {
      id: part ?? id,
      name: part ? repairName(circuit, [part]) : what,
      done,
      priceMinor: priceMinor === undefined ? usual : priceMinor || null,
      failsAgain: isTemporary(line) ? temporaryFails : 0,
    };
  };

/** Parts that a list of work means to cure. */
const curedBy = (works: readonly OfferedWork[]): string[] =>
  partsRepaired(works.map(({ id, done }) => ({ part: id, done })));

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
  const offered = offeredPart(view, priceOf);
  const chosenParts = fit && fit.targets.length > 0 ? fit : null;
  const { parts: decided } = partsOfRound(view, chosenParts, verdict);
  const works = lines.length > 0 ? lines.map(offeredLine(view, priceOf)) : decided.map(offered);
  const chosen = lines.length > 0 ? partsRepaired(lines) : decided;
  const renewed = new Set(partsMended(view.works));
  const isOpen = (id: string): boolean => !chosen.includes(id) && !renewed.has(id);
  const doubt = (id: string): number => diagnosis.parts.find(({ part }) => part === id)?.p ?? 0;
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
    cures: (list) => beliefIn(diagnosis.suspects, curedBy(list)),
    cause: causeId ? { ...offered(causeId), killsAgain: doubt(causeId) } : null,
    beside: beside
      ? {
          ...offered(beside.id),
          failsWithin: failsWithin(beside.kind, terms.warrantyMonths, doubt(beside.id)),
        }
      : null,
    // The part that usually causes the complaint, with today's probability.
    guess: guessId ? { ...offered(guessId), p: beliefIn(diagnosis.suspects, [guessId]) } : null,
    labourTitle,
    ...labour,
    diagnosisMinutes: minutesTesting(view.engine, activeReadings(view)),
  };
}
