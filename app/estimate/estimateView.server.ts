import { billDifference, priced } from "@core/money/estimate";
import { estimateLineSchema } from "@core/money/estimateLine";
import { type OfferInput, recommended, repairOffers } from "@core/money/repairOffer";
import { tenthsMilli } from "@core/money/shopTerms";
import { ownSteps } from "@core/workList/ownSteps";
import { bookTimesOf } from "@db/repositories/bookTimes.server";
import { estimatesOf, type StoredEstimate } from "@db/repositories/estimates.server";
import { partSourcesOf, type StoredPartSource } from "@db/repositories/partSources.server";
import type { EstimateBody } from "@db/storedColumns";
import { offerTitles } from "@words/offerWords";
import { diagnosisOf } from "../job/diagnosis.server";
import { type JobView, jobViewAt } from "../job/jobView.server";
import { fittingsOfMatches, jobMatches } from "../parts/jobMatches.server";
import { proofMinutes } from "../repair/labour.server";
import { repairState } from "../repair/repairState.server";
import { dayText } from "../text/clock";
import { randomId } from "../text/randomId";
import { shopZone } from "../text/shopZone.server";
import { offerInput, worksInWords } from "./offerInput.server";

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

/** Minutes the ticked steps took; as planned if a tick has none, null if nothing was ticked. */
export async function minutesTicked({ job, circuit, works }: JobView): Promise<number | null> {
  const state = await repairState(job, circuit);
  const ticks = state?.allTicks ?? [];
  if (!state || ticks.length === 0) return null;
  const fittings = fittingsOfMatches(await jobMatches(job, circuit));
  // Work of earlier rounds is no longer among the steps to do.
  const steps = [
    ...state.fittings.map(({ fitting }) => fitting),
    ...fittings,
    ...ownSteps(circuit, works, fittings),
  ];
  const planned = (step: string): number =>
    state.plan.steps.find(({ id }) => id === step)?.minutes ??
    steps.find(({ id }) => id === step)?.adaptation.minutes ??
    proofMinutes;
  return ticks.reduce((sum, { step, minutes }) => sum + (minutes ?? planned(step)), 0);
}

/** What of the work list is not as a version was made from it; null if it is the same. */
function listChanged({ works: then }: EstimateBody, now: readonly string[]) {
  if (!then) return null;
  const [added, gone] = [now.filter((own) => !then.includes(own)), then.filter((own) => !now.includes(own))];
  return added.length + gone.length === 0 ? null : { added, gone };
}

/** Where each new part can be had, the cheapest and the earliest marked. */
function sourcesView({ works }: OfferInput, sources: readonly StoredPartSource[]) {
  return works
    .filter(({ priceMinor }) => priceMinor !== null)
    .map(({ id, name, priceMinor }) => {
      const own = sources.filter(({ part }) => part === id);
      const cheapest = Math.min(...own.map((source) => source.priceMinor));
      const days = own.flatMap(({ arrivesOn }) => arrivesOn ?? []).sort();
      return {
        part: id,
        name,
        priceMinor,
        sources: own.map((source) => ({
          ...source,
          isCheapest: own.length > 1 && source.priceMinor === cheapest,
          isEarliest: days.length > 1 && source.arrivesOn === days[0],
        })),
      };
    });
}

/** Everything the estimate page shows of a job. */
export async function estimateView(id: string | undefined) {
  const view = await jobViewAt(id);
  const { verdict } = diagnosisOf(view);
  const [input, versions, ticked, sources, bookTimes] = await Promise.all([
    offerInput(view),
    estimatesOf(view.job.id),
    minutesTicked(view),
    partSourcesOf(view.job.id),
    bookTimesOf(view.circuit.id),
  ]);
  const made = versions.map(versionOf);
  const approved = made.findLast(({ kind, approved: when }) => kind === "estimate" && when !== null);
  const bill = made.findLast(({ kind }) => kind === "bill");
  const latest = versions.at(-1);
  const offers = input.works.length > 0 ? repairOffers(input) : [];
  const named = new Map(
    [...input.works, input.cause, input.beside, input.guess].flatMap((own) =>
      own ? [[own.id, own.name] as const] : [],
    ),
  );
  return {
    id: view.job.id,
    stage: view.job.stage,
    token: randomId(),
    open: verdict.state === "open",
    vehicle: `${view.job.vehicle.model}, ${view.job.vehicle.label}`,
    model: view.job.vehicle.model,
    terms: input.terms,
    offers: offers.map((offer) => ({
      ...offer,
      names: offer.works.map((own) => named.get(own) ?? own).join("; "),
      labourHours: offer.priced.lines.find(({ kind }) => kind === "labour")?.quantityMilli ?? null,
    })),
    recommended: recommended(offers, input, verdict.state !== "open"),
    sources: sourcesView(input, sources),
    bookTimes: input.works
      .filter(({ id: own }) => view.works.every((line) => line.id !== own))
      .map(({ id: part, name }) => {
        const entered = bookTimes.find((time) => time.part === part);
        return { part, name, minutes: entered?.minutes ?? null, source: entered?.source ?? "" };
      }),
    /** Labour for all parts together and for each part alone: shared steps are charged once. */
    shared: sharedLabour(input),
    versions: made,
    changed: latest ? listChanged(latest.body, worksInWords(view)) : null,
    billFrom: approved ? { body: billBody(approved.body, ticked), minutes: ticked } : null,
    difference: approved && bill ? billDifference(approved.priced, bill.priced) : null,
  };
}

function sharedLabour(input: OfferInput) {
  const other = input.cause ?? input.beside;
  const ids = input.works.map(({ id }) => id);
  if (!other || ids.length === 0) return null;
  const [together, apart] = [
    input.labourMinutes([...ids, other.id]),
    input.labourMinutes(ids) + input.labourMinutes([other.id]),
  ];
  return { name: other.name, together, apart };
}

/** An offer as an estimate's first version, and the parts it works on; null if there is no such offer. */
export async function offerFor(
  id: string | undefined,
  kind: string,
): Promise<{ readonly body: EstimateBody; readonly parts: readonly string[] } | null> {
  const view = await jobViewAt(id);
  const input = await offerInput(view);
  const offer = repairOffers(input).find((own) => own.kind === kind);
  if (!offer) return null;
  const body: EstimateBody = {
    title: offerTitles[offer.kind],
    currency: input.terms.currency,
    rounding: input.terms.rounding,
    lines: offer.priced.lines.map((line) => estimateLineSchema.strip().parse(line)),
    works: worksInWords(view),
  };
  return { body, parts: offer.works };
}

export type EstimateData = Awaited<ReturnType<typeof estimateView>>;
