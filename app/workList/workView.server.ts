import { usualRepair } from "@core/diagnose/verdict/stopping";
import { listedPriceMinor } from "@core/match/partDescription";
import { proposedWork } from "@core/workList/proposedWork";
import { listParts } from "@db/repositories/parts.server";
import { shopTerms } from "@db/repositories/settings.server";
import { worksOf } from "@db/repositories/works.server";
import { proposalText, workName } from "@words/workWords";
import { diagnosisOf } from "../job/diagnosis.server";
import { activeReadings, type JobView, jobViewAt } from "../job/jobView.server";
import { randomId } from "../text/randomId";
import { lineView, roundsOf } from "./rounds.server";

/** Minutes and price that a repair of a part usually takes. */
async function usualOf({ circuit, costs }: JobView) {
  const parts = await listParts();
  return (part: string) => {
    const usual = usualRepair(circuit, part, costs.repairs);
    return {
      minutes: usual.minutes,
      priceMinor: listedPriceMinor(parts, circuit.id, part) ?? usual.priceMinor,
    };
  };
}

/** A job's work list: round by round, with what the verdict and the findings still ask for. */
export async function workView(id: string | undefined) {
  const view = await jobViewAt(id);
  const { job, circuit } = view;
  const [all, rounds, usual, { currency }] = await Promise.all([
    worksOf(job.id),
    roundsOf(view),
    usualOf(view),
    shopTerms(),
  ]);
  const { verdict } = diagnosisOf(view);
  const open = job.stage !== "closed";
  // Before the check, the verdict names what to do; after it, the work was done.
  const named = verdict.state === "open" || job.stage === "proof-due" ? [] : verdict.replace;
  const present = rounds.at(-1)?.lines ?? [];
  const proposals = open ? proposedWork(circuit, named, activeReadings(view), view.works) : [];
  return {
    id: job.id,
    stage: job.stage,
    currency,
    rounds,
    deleted: all.filter(({ struckAt }) => struckAt !== null).map((line) => lineView(circuit, line)),
    proposals: proposals.map(({ part, done, reason }) => ({
      part,
      done,
      name: workName(circuit, { part, what: part }),
      why: proposalText(reason),
      ...usual(part),
    })),
    /** Everything on the vehicle that work can be done on. */
    choices: [...circuit.parts, ...circuit.connectors, ...circuit.wires].map(({ id: part }) => ({
      part,
      name: workName(circuit, { part, what: part }),
    })),
    totals: {
      minutes: present.reduce((sum, { plannedMinutes = 0 }) => sum + plannedMinutes, 0),
      priceMinor: view.works.reduce((sum, { priceMinor = 0 }) => sum + priceMinor, 0),
    },
    open,
    verdict: { state: verdict.state, parts: verdict.replace },
    token: randomId(),
  };
}

export type WorkData = Awaited<ReturnType<typeof workView>>;
