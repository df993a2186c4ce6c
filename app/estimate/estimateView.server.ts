import { failsWithin } from "@core/access/failureChance";
import { quickestRoute } from "@core/access/route";
import { learntMinutes, shopPace } from "@core/access/stepTimes";
import { wearingKinds } from "@core/access/wearingPart";
import { usualRepair } from "@core/diagnose/verdict/stopping";
import { listedPriceMinor } from "@core/match/partDescription";
import { billDifference, priced } from "@core/money/estimate";
import { estimateLineSchema } from "@core/money/estimateLine";
import { type OfferedPart, type OfferInput, repairOffers } from "@core/money/repairOffer";
import { tenthsMilli } from "@core/money/shopTerms";
import { defaultStoppingCosts } from "@core/money/stoppingCosts";
import { partsMended, partsRepaired } from "@core/workList/workLine";
import { estimatesOf, type StoredEstimate } from "@db/repositories/estimates.server";
import { listParts } from "@db/repositories/parts.server";
import { findPlan } from "@db/repositories/plans.server";
import { measuredSteps, repairOf, ticksOf } from "@db/repositories/repairs.server";
import { shopTerms } from "@db/repositories/settings.server";
import type { EstimateBody } from "@db/storedColumns";
import { offerTitles } from "@words/offerTitles";
import { repairName } from "@words/partName";
import { beliefIn, diagnosisFrom, diagnosisOf } from "../job/diagnosis.server";
import { activeReadings, type JobView, jobViewAt, minutesTesting, presentRound } from "../job/jobView.server";
import { jobMatches } from "../parts/jobMatches.server";
import { dayText } from "../text/clock";
import { randomId } from "../text/randomId";
import { shopZone } from "../text/shopZone.server";

/** Minutes of the final check: key on, every speed, listening (judgement). */
const proofMinutes = 5;

/**
 * Minutes at the car for some parts together: removal and refitting by the plan at this shop's pace, the work on the
 * new parts, and the final check.
 */
async function labourOf(view: JobView) {
  const { circuit, job } = view;
  const [stored, fit, measured, parts, matches] = await Promise.all([
    findPlan(circuit.id),
    repairOf(job.id),
    measuredSteps(circuit.id),
    listParts(),
    jobMatches(job, circuit),
  ]);
  const workOn = (id: string): number => matches.find(({ part }) => part === id)?.match?.workMinutes ?? 0;
  const pace = stored ? shopPace(stored.plan, measured) : null;
  const minutes = (ids: readonly string[], book: boolean): number => {
    const reached = ids.filter((id) => stored && Object.hasOwn(stored.plan.targets, id));
    const others = ids.filter((id) => !reached.includes(id));
    const route =
      stored && pace && reached.length > 0
        ? quickestRoute(stored.plan, reached, {
            prefer: book ? "book" : (fit?.prefer ?? "quickest"),
            ...(book ? {} : { minutesOf: (step) => learntMinutes(step, pace, measured).minutes }),
          })
        : null;
    const inAndBack = route?.ok ? 2 * route.value.minutes : 0;
    const alone = (route?.ok ? others : ids).reduce((sum, id) => sum + usualRepair(circuit, id).minutes, 0);
    return inAndBack + alone + ids.reduce((sum, id) => sum + workOn(id), 0) + proofMinutes;
  };
  const priceMinor = (id: string): number =>
    matches.find(({ part }) => part === id)?.fresh.priceMinor ??
    listedPriceMinor(parts, circuit.id, id) ??
    usualRepair(circuit, id).priceMinor;
  return { minutes, priceMinor };
}

/** The input of a job's offers: its verdict, its plan, its catalogue, the shop's terms. */
async function offerInput(view: JobView): Promise<OfferInput> {
  const { job, circuit } = view;
  const [terms, labour, fit] = await Promise.all([shopTerms(), labourOf(view), repairOf(job.id)]);
  const diagnosis = diagnosisOf(view);
  const { verdict } = diagnosis;
  // The work of the present round. What an earlier round renewed is on the bill already.
  const listed = partsRepaired(view.works.filter(({ round }) => round === presentRound(view)));
  const renewed = new Set(partsMended(view.works));
  const chosen =
    listed.length > 0
      ? listed
      : (job.fitted ?? (fit && fit.targets.length > 0 ? fit.targets : verdict.replace));
  // While the verdict is open, the charged diagnosis is still unfinished, so the belief is taken at the shop's limit.
  const belief = beliefIn(diagnosis.suspects, chosen);
  const offered = (id: string): OfferedPart => ({
    id,
    name: repairName(circuit, [id]),
    priceMinor: labour.priceMinor(id),
  });
  const doubt = (id: string): number => diagnosis.parts.find(({ part }) => part === id)?.p ?? 0;
  const causeId = [verdict.killedBy, ...verdict.alsoCheck].find(
    (id) => id && !chosen.includes(id) && !renewed.has(id),
  );
  const besideId = circuit.parts.find(
    ({ id, kind }) => wearingKinds.has(kind) && !chosen.includes(id) && id !== causeId && !renewed.has(id),
  );
  const { verdict: heard } = diagnosisFrom(
    view,
    activeReadings(view).filter((reading) => reading.heard),
    { repairs: [] },
  );
  const [guessed] = heard.replace;
  const guessId = guessed !== undefined && renewed.has(guessed) ? undefined : guessed;
  return {
    terms,
    parts: chosen.map(offered),
    p: verdict.state === "open" ? Math.max(belief, defaultStoppingCosts.settledBar) : belief,
    cause: causeId ? { ...offered(causeId), killsAgain: doubt(causeId) } : null,
    beside: besideId
      ? {
          ...offered(besideId.id),
          failsWithin: failsWithin(besideId.kind, terms.warrantyMonths, doubt(besideId.id)),
        }
      : null,
    // The part that usually causes the complaint, with today's probability.
    guess: guessId ? { ...offered(guessId), p: beliefIn(diagnosis.suspects, [guessId]) } : null,
    labourMinutes: (ids) => labour.minutes(ids, false),
    bookMinutes: (ids) => labour.minutes(ids, true),
    diagnosisMinutes: minutesTesting(view),
  };
}

/** A version with its amounts. */
const versionOf = ({ body, madeAt, approvedAt, ...own }: StoredEstimate) => ({
  ...own,
  body,
  priced: priced(body.lines, body.rounding),
  made: dayText(madeAt, shopZone()),
  approved: approvedAt ? dayText(approvedAt, shopZone()) : null,
});

/**
 * A bill from the approved version. A single line of labour gets the minutes the steps took; several lines stay
 * unchanged.
 */
function billBody(body: EstimateBody, minutes: number | null): EstimateBody {
  const single = body.lines.filter(({ kind }) => kind === "labour").length === 1;
  if (minutes === null || !single) return body;
  return {
    ...body,
    lines: body.lines.map((line) =>
      line.kind === "labour" ? { ...line, quantityMilli: tenthsMilli(minutes) } : line,
    ),
  };
}

/** Minutes the ticked steps took; the plan's if a tick has none, null if nothing was ticked. */
export async function minutesTicked(view: JobView): Promise<number | null> {
  const [stored, ticks] = await Promise.all([findPlan(view.circuit.id), ticksOf(view.job.id)]);
  if (!stored || ticks.length === 0) return null;
  const planned = (step: string): number =>
    stored.plan.steps.find(({ id }) => id === step)?.minutes ?? proofMinutes;
  return ticks.reduce((sum, { step, minutes }) => sum + (minutes ?? planned(step)), 0);
}

/** Everything the estimate page shows of a job. */
export async function estimateView(id: string | undefined) {
  const view = await jobViewAt(id);
  const { verdict } = diagnosisOf(view);
  const [input, versions, ticked] = await Promise.all([
    offerInput(view),
    estimatesOf(view.job.id),
    minutesTicked(view),
  ]);
  const made = versions.map(versionOf);
  const approved = made.findLast(({ kind, approved: when }) => kind === "estimate" && when !== null);
  const bill = made.findLast(({ kind }) => kind === "bill");
  return {
    id: view.job.id,
    token: randomId(),
    open: verdict.state === "open",
    vehicle: `${view.job.vehicle.model}, ${view.job.vehicle.label}`,
    terms: input.terms,
    offers: (input.parts.length > 0 ? repairOffers(input) : []).map((offer) => ({
      ...offer,
      names: repairName(view.circuit, offer.parts),
      labourHours: offer.priced.lines.find(({ kind }) => kind === "labour")?.quantityMilli ?? null,
    })),
    /** Labour for all parts together and for each part alone: shared steps are charged once. */
    shared: sharedLabour(input),
    versions: made,
    billFrom: approved ? { body: billBody(approved.body, ticked), minutes: ticked } : null,
    difference: approved && bill ? billDifference(approved.priced, bill.priced) : null,
  };
}

function sharedLabour(input: OfferInput) {
  const other = input.cause ?? input.beside;
  const ids = input.parts.map(({ id }) => id);
  if (!other || ids.length === 0) return null;
  const [together, apart] = [
    input.labourMinutes([...ids, other.id]),
    input.labourMinutes(ids) + input.labourMinutes([other.id]),
  ];
  return { name: other.name, together, apart };
}

/** The lines of an offer, as in an estimate's first version. */
export async function offerBody(id: string | undefined, kind: string): Promise<EstimateBody | null> {
  const input = await offerInput(await jobViewAt(id));
  const offer = repairOffers(input).find((own) => own.kind === kind);
  if (!offer) return null;
  return {
    title: offerTitles[offer.kind],
    currency: input.terms.currency,
    rounding: input.terms.rounding,
    lines: offer.priced.lines.map((line) => estimateLineSchema.strip().parse(line)),
  };
}

export type EstimateData = Awaited<ReturnType<typeof estimateView>>;
