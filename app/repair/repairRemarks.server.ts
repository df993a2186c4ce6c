import { type SortCount, trayOf, unexplained } from "@core/access/tray";
import type { Circuit } from "@core/circuit/circuit";
import type { Job } from "@db/repositories/jobs.server";
import { findPlan } from "@db/repositories/plans.server";
import { ticksOf, trayNotesOf } from "@db/repositories/repairs.server";
import { repairName } from "@words/partName";
import { trayNoteText } from "@words/trayWords";
import { jobMatches } from "../parts/jobMatches.server";

/** Screws of a job that nothing explains yet, by sort; none if its vehicle has no plan. */
export async function screwsOpen(job: Pick<Job, "id">, circuit: Circuit): Promise<SortCount[]> {
  const [stored, ticks, notes] = await Promise.all([
    findPlan(circuit.id),
    ticksOf(job.id),
    trayNotesOf(job.id),
  ]);
  return stored ? unexplained(trayOf(stored.plan.steps, ticks, notes)) : [];
}

/**
 * What the next person should know of a repair: differences of a part that somebody accepted, screws that are lost or
 * left over, and steps done before their turn.
 */
export async function repairRemarks(job: Pick<Job, "id">, circuit: Circuit): Promise<string[]> {
  const [stored, ticks, notes, matches] = await Promise.all([
    findPlan(circuit.id),
    ticksOf(job.id),
    trayNotesOf(job.id),
    jobMatches(job, circuit),
  ]);
  const title = (step: string): string => stored?.plan.steps.find(({ id }) => id === step)?.title ?? step;
  return [
    ...matches.flatMap(({ part, fresh, match, overrides }) =>
      overrides
        .filter(({ feature }) => match?.differences.some((own) => own.feature === feature))
        .map(
          ({ feature, words }) =>
            `${repairName(circuit, [part])}, ${fresh.number}: the difference in ${feature} was accepted: “${words}”`,
        ),
    ),
    ...notes.filter(({ kind }) => kind !== "found").map(trayNoteText),
    ...ticks.flatMap(({ step, reason }) => (reason ? [`${title(step)}, before its turn: ${reason}`] : [])),
  ];
}
