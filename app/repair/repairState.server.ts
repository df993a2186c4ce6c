import { fittingNeedsBatteryOff } from "@core/access/fittingStep";
import type { AccessPlan, AccessStep } from "@core/access/plan";
import type { PlacedFitting } from "@core/access/refitting";
import {
  type Preference,
  preferences,
  quickestRoute,
  type Route,
  routeOf,
  stepsInOrder,
} from "@core/access/route";
import { presentTicks } from "@core/access/stepCycle";
import { placeFittings } from "@core/access/stepOrder";
import { type LearntMinutes, learntMinutes, type Pace, shopPace } from "@core/access/stepTimes";
import type { Circuit } from "@core/circuit/circuit";
import type { Diagnosis } from "@core/diagnose/diagnose";
import { ownSteps } from "@core/workList/ownSteps";
import { usualWork } from "@core/workList/proposedWork";
import { partsRepaired, type WorkLine } from "@core/workList/workLine";
import type { Job } from "@db/repositories/jobs.server";
import { findPlan } from "@db/repositories/plans.server";
import {
  type ChosenRepair,
  measuredSteps,
  type RepairTick,
  repairOf,
  type StoredTrayNote,
  ticksOf,
  trayNotesOf,
} from "@db/repositories/repairs.server";
import { diagnosisOf } from "../job/diagnosis.server";
import { type JobView, jobViewAt, presentRound, presentWorks } from "../job/jobView.server";
import { fittingsOfMatches, jobMatches } from "../parts/jobMatches.server";

/** One preference, and the route it leads to. */
export interface Way {
  readonly prefer: Preference;
  readonly route: ReturnType<typeof quickestRoute>;
}

/** A job's repair as it stands: the route chosen, the work on the new parts, and what was ticked and counted. */
export interface RepairState {
  readonly plan: AccessPlan;
  readonly view: JobView;
  readonly diagnosis: Diagnosis;
  /** Parts to remove that the plan reaches, and those it does not. */
  readonly targets: readonly string[];
  readonly unreached: readonly string[];
  /** Nobody chose the parts, and the verdict is still open. */
  readonly likeliestOnly: boolean;
  /** Parts of the work list within reach that the choice leaves in. */
  readonly listedSince: readonly string[];
  readonly prefer: Preference;
  readonly ways: readonly Way[];
  readonly way: Way["route"] | undefined;
  readonly route: Route;
  readonly steps: readonly AccessStep[];
  readonly fittings: readonly PlacedFitting[];
  /** The negative has to be off for the work on the new parts. */
  readonly fittingsNeedBatteryOff: boolean;
  readonly off: ReadonlySet<string>;
  /** Ticks of this round, and of what is still off from an earlier one. */
  readonly ticks: readonly RepairTick[];
  /** Ticks of all rounds, by which the tray counts. */
  readonly allTicks: readonly RepairTick[];
  readonly trayNotes: readonly StoredTrayNote[];
  readonly pace: Pace;
  readonly learnt: ReadonlyMap<string, LearntMinutes>;
  readonly minutesOf: (step: AccessStep) => number;
}

/** Parts that a job's round works on, and whether nobody chose them while the verdict is still open. */
interface RoundParts {
  readonly parts: readonly string[];
  readonly likeliestOnly: boolean;
  /** Parts of the work list that were not among those chosen, because the list has changed since. */
  readonly listedSince: readonly string[];
}

/**
 * The parts a job's round works on: those somebody chose to remove, those on the work list, those decided on, otherwise
 * those of the verdict.
 */
export function partsOfRound(
  view: JobView,
  chosen: ChosenRepair | null,
  { replace, state }: Diagnosis["verdict"],
): RoundParts {
  const round = presentRound(view);
  const listed = partsRepaired(presentWorks(view));
  // Somebody who deselects everything means it.
  if (chosen?.round === round)
    return {
      parts: chosen.targets,
      likeliestOnly: false,
      listedSince: listed.filter((part) => !chosen.targets.includes(part)),
    };
  const decided = round === 1 ? (view.job.fitted ?? []) : [];
  const parts = [listed, decided].find((own) => own.length > 0);
  return { parts: parts ?? replace, likeliestOnly: !parts && state === "open", listedSince: [] };
}

/** The work of a job's round on these parts: the lines listed, or if there are none, what is usually done to each part. */
function linesToDo(
  view: JobView,
  parts: readonly string[],
  reaches: (part: string) => boolean,
): readonly Pick<WorkLine, "part" | "done" | "adapts">[] {
  const lines = presentWorks(view);
  if (lines.length === 0) return parts.map((part) => ({ part, done: usualWork(view.circuit, part) }));
  return lines.filter(({ part }) => part && (parts.includes(part) || !reaches(part)));
}

/** A job's repair as it stands; null if its vehicle has no plan yet. */
export async function repairState(job: Job, circuit: Circuit): Promise<RepairState | null> {
  const stored = await findPlan(circuit.id);
  if (!stored) return null;
  const { plan } = stored;
  const [view, chosen, allTicks, trayNotes, measured, matches] = await Promise.all([
    jobViewAt(String(job.id)),
    repairOf(job.id),
    ticksOf(job.id),
    trayNotesOf(job.id),
    measuredSteps(circuit.id),
    jobMatches(job, circuit),
  ]);
  const ticks = presentTicks(allTicks, presentRound(view));
  const diagnosis = diagnosisOf(view);
  const { parts, likeliestOnly, listedSince } = partsOfRound(view, chosen, diagnosis.verdict);
  const reaches = (id: string): boolean => Object.hasOwn(plan.targets, id);
  const targets = parts.filter(reaches);
  const prefer = chosen?.prefer ?? "quickest";
  const pace = shopPace(plan, measured);
  const learnt = new Map(plan.steps.map((step) => [step.id, learntMinutes(step, pace, measured)]));
  const minutesOf = (step: AccessStep): number => learnt.get(step.id)?.minutes ?? step.minutes;
  const withParts = fittingsOfMatches(matches.filter(({ part }) => parts.includes(part)));
  const adapted = [...withParts, ...ownSteps(circuit, linesToDo(view, parts, reaches), withParts)];
  const fittingsNeedBatteryOff = fittingNeedsBatteryOff(adapted);
  const ways = preferences.map(
    (own): Way => ({
      prefer: own,
      route: quickestRoute(plan, targets, { prefer: own, minutesOf, batteryOff: fittingsNeedBatteryOff }),
    }),
  );
  const way = ways.find((own) => own.prefer === prefer)?.route;
  const off = new Set(ticks.filter((tick) => tick.way === "in").map(({ step }) => step));
  const route: Route = way?.ok ? way.value : routeOf([], targets);
  // Steps removed for another part, or before the route was changed, are refitted too.
  const steps = stepsInOrder(plan, new Set([...route.steps.map(({ id }) => id), ...off]));
  return {
    plan,
    view,
    diagnosis,
    targets,
    unreached: parts.filter((id) => !reaches(id)),
    likeliestOnly: likeliestOnly && targets.length > 0,
    listedSince: listedSince.filter(reaches),
    prefer,
    ways,
    way,
    route,
    steps,
    fittings: placeFittings(plan, steps, adapted),
    fittingsNeedBatteryOff,
    off,
    ticks,
    allTicks,
    trayNotes,
    pace,
    learnt,
    minutesOf,
  };
}
