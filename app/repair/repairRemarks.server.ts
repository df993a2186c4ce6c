import type { SortCount } from "@core/access/sortCount";
import { trayOf, unexplained } from "@core/access/tray";
import type { Circuit } from "@core/circuit/circuit";
import type { Job } from "@db/repositories/jobs.server";
import { findPlan } from "@db/repositories/plans.server";
import { ticksOf, trayNotesOf } from "@db/repositories/repairs.server";
import { repairName } from "@words/partName";
import { trayNoteText } from "@words/trayWords";
import { jobMatches } from "../parts/jobMatches.server";

/** What the steps and screws of a repair leave to say. */
interface ScrewsLeft {
  /** Screws that are not accounted for yet, by sort. The list is empty if the vehicle has no plan. */
  readonly open: readonly SortCount[];
  /** Screws that are lost or left over, and steps done before their turn. */
  readonly remarks: readonly string[];
}

/** What a job's steps and screws leave to say when it is closed. */
export async function screwsLeft(job: Pick<Job, "id">, circuit: Circuit): Promise<ScrewsLeft> {
  const [stored, ticks, notes] = await Promise.all([
    findPlan(circuit.id),
    ticksOf(job.id),
    trayNotesOf(job.id),
  ]);
  const steps = stored?.plan.steps ?? [];
  const title = (step: string): string => steps.find(({ id }) => id === step)?.title ?? step;
  return {
    open: unexplained(trayOf(steps, ticks, notes)),
    remarks: [
      ...notes.filter(({ kind }) => kind !== "found").map(trayNoteText),
      ...ticks.flatMap(({ step, reason }) => (reason ? [`${title(step)}, before its turn: ${reason}`] : [])),
    ],
  };
}

/** Differences of a new part that somebody accepted, each with the reason. */
export async function acceptedDifferences(job: Pick<Job, "id">, circuit: Circuit): Promise<string[]> {
  return (await jobMatches(job, circuit)).flatMap(({ part, fresh, match, overrides }) =>
    overrides
      .filter(({ feature }) => match?.differences.some((own) => own.feature === feature))
      .map(
        ({ feature, words }) =>
          `${repairName(circuit, [part])}, ${fresh.number}: the difference in ${feature} was accepted: “${words}”`,
      ),
  );
}
