import { usualRepair } from "@core/diagnose/verdict/stopping";
import type { WorkDone } from "@core/labour/workDone";
import { listedPriceMinor } from "@core/match/partDescription";
import { proposedFittings, proposedWork } from "@core/workList/proposedWork";
import type { WorkEntry, WorkLine } from "@core/workList/workLine";
import { listParts } from "@db/repositories/parts.server";
import { shopTerms } from "@db/repositories/settings.server";
import { worksOf } from "@db/repositories/works.server";
import { adaptationThing } from "@words/adaptationWords";
import { proposalText, workName } from "@words/workWords";
import { diagnosisOf } from "../job/diagnosis.server";
import { activeReadings, type JobView, jobViewAt } from "../job/jobView.server";
import { fittingsOfMatches, type JobMatch, jobMatches } from "../parts/jobMatches.server";
import { type Labour, labourOf } from "../repair/labour.server";
import { randomId } from "../text/randomId";
import { lineView, roundsOf } from "./rounds.server";

/** Minutes, price and number of a part's repair: of the new part if one is chosen, otherwise as usual. */
async function usualOf({ circuit, costs }: JobView, matches: readonly JobMatch[], labour: Labour) {
  const parts = await listParts();
  return (part: string) => {
    const usual = usualRepair(circuit, part, costs.repairs);
    const fresh = matches.find((own) => own.part === part)?.fresh;
    return {
      minutes: toHalves(labour.workMinutes([part])),
      priceMinor: fresh?.priceMinor ?? listedPriceMinor(parts, circuit.id, part) ?? usual.priceMinor,
      number: fresh?.number ?? null,
    };
  };
}

const toHalves = (minutes: number): number => Math.round(minutes * 2) / 2;

/** A line that can be added with one tap. */
interface ProposalView {
  readonly key: string;
  /** Something of the circuit; null for anything else. */
  readonly part: string | null;
  readonly what: string;
  readonly done: WorkDone;
  readonly why: string;
  readonly minutes: number;
  readonly priceMinor: number | null;
  readonly number: string | null;
  /** The shop's warranty on something new; null for other work. */
  readonly warrantyMonths: number | null;
  readonly adapts: WorkLine["adapts"] | null;
}

/** A proposed line as it is stored. */
export const proposedEntry = (proposal: ProposalView): WorkEntry => ({
  ...(proposal.part ? { part: proposal.part } : {}),
  what: proposal.what,
  done: proposal.done,
  plannedMinutes: proposal.minutes,
  ...(proposal.priceMinor === null ? {} : { priceMinor: proposal.priceMinor }),
  ...(proposal.number ? { number: proposal.number } : {}),
  ...(proposal.warrantyMonths === null ? {} : { warrantyMonths: proposal.warrantyMonths }),
  ...(proposal.adapts ? { adapts: proposal.adapts } : {}),
});

/** The lines that verdict, findings and new parts ask for. */
function proposalsOf(
  { circuit, works, ...view }: JobView,
  named: readonly string[],
  matches: readonly JobMatch[],
  usual: Awaited<ReturnType<typeof usualOf>>,
  warrantyMonths: number,
): ProposalView[] {
  const name = (part: string): string => workName(circuit, { part, what: part });
  const readings = activeReadings(view);
  // A wrong part is not proposed; Parts says what to do about it.
  const chosen = matches.flatMap(({ part, match }) => (match?.verdict === "wrong" ? [] : [part]));
  const fittings = matches
    .filter(({ part }) => chosen.includes(part))
    .flatMap((match) =>
      fittingsOfMatches([match]).map((fitting) => ({ fitting, number: match.fresh.number })),
    );
  return [
    ...proposedWork(circuit, named, readings, works, chosen).map(
      ({ part, done, reason }): ProposalView => ({
        key: part,
        part,
        what: name(part),
        done,
        why: proposalText(reason),
        adapts: null,
        warrantyMonths: done === "renewed" || done === "spliced" ? warrantyMonths : null,
        ...usual(part),
      }),
    ),
    ...proposedFittings(circuit, fittings, works).map(
      ({ fitting: { id, part, adaptation }, plug, done, reason }): ProposalView => ({
        key: id,
        part: plug,
        what: plug ? name(plug) : adaptationThing(circuit, adaptation.work, part),
        done,
        why: proposalText(reason),
        minutes: adaptation.minutes,
        priceMinor: null,
        number: null,
        warrantyMonths: null,
        adapts: { part, work: adaptation.work },
      }),
    ),
  ];
}

/** A job's work list: round by round, with what the verdict and the findings still ask for. */
export async function workView(id: string | undefined) {
  const view = await jobViewAt(id);
  const { job, circuit } = view;
  const [all, rounds, matches, { currency, warrantyMonths }] = await Promise.all([
    worksOf(job.id),
    roundsOf(view),
    jobMatches(job, circuit),
    shopTerms(),
  ]);
  const present = rounds.at(-1)?.lines ?? [];
  const labour = await labourOf(view, present, matches);
  const usual = await usualOf(view, matches, labour);
  const { verdict } = diagnosisOf(view);
  const open = job.stage !== "closed";
  // Before the check, the verdict names what to do; after it, the work was done.
  const named = verdict.state === "open" || job.stage === "proof-due" ? [] : verdict.replace;
  return {
    id: job.id,
    stage: job.stage,
    currency,
    rounds,
    deleted: all.filter(({ struckAt }) => struckAt !== null).map((line) => lineView(view, line)),
    proposals: open ? proposalsOf(view, named, matches, usual, warrantyMonths) : [],
    /** Everything on the vehicle that work can be done on. */
    choices: [...circuit.parts, ...circuit.connectors, ...circuit.wires].map(({ id: part }) => ({
      part,
      name: workName(circuit, { part, what: part }),
    })),
    totals: {
      minutes: present.reduce((sum, { plannedMinutes = 0 }) => sum + plannedMinutes, 0),
      /** Minutes if all lines are done together: removal and refitting steps that they share count once. */
      togetherMinutes: toHalves(labour.workMinutes(present.map((line) => line.part ?? line.id))),
      priceMinor: view.works.reduce((sum, { priceMinor = 0 }) => sum + priceMinor, 0),
    },
    open,
    verdict: { state: verdict.state, parts: verdict.replace },
    token: randomId(),
  };
}

export type WorkData = Awaited<ReturnType<typeof workView>>;
