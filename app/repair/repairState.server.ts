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
import { placeFittings } from "@core/access/stepOrder";
import { type LearntMinutes, learntMinutes, type Pace, shopPace } from "@core/access/stepTimes";
import type { Circuit } from "@core/circuit/circuit";
import type { Diagnosis } from "@core/diagnose/diagnose";
import type { Job } from "@db/repositories/jobs.server";
import { findPlan } from "@db/repositories/plans.server";
import {
  measuredSteps,
  type RepairTick,
  repairOf,
  type StoredTrayNote,
  ticksOf,
  trayNotesOf,
} from "@db/repositories/repairs.server";
import { diagnosisOf } from "../job/diagnosis.server";
import { type JobView, jobViewAt } from "../job/jobView.server";
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
  readonly prefer: Preference;
  readonly ways: readonly Way[];
  readonly way: Way["route"] | undefined;
  readonly route: Route;
  readonly steps: readonly AccessStep[];
  readonly fittings: readonly PlacedFitting[];
  /** The negative has to be off for the work on the new parts. */
  readonly fittingsNeedBatteryOff: boolean;
  readonly off: ReadonlySet<string>;
  readonly ticks: readonly RepairTick[];
  readonly trayNotes: readonly StoredTrayNote[];
  readonly pace: Pace;
  readonly learnt: ReadonlyMap<string, LearntMinutes>;
  readonly minutesOf: (step: AccessStep) => number;
}

/** The parts a job replaces if nobody has chosen: those decided on, otherwise those of the verdict. */
function likelyTargets(job: Job, { verdict }: Diagnosis): { targets: readonly string[]; open: boolean } {
  if (job.fitted) return { targets: job.fitted, open: false };
  return { targets: verdict.replace, open: verdict.state === "open" };
}

/** A job's repair as it stands; null if its vehicle has no plan yet. */
export async function repairState(job: Job, circuit: Circuit): Promise<RepairState | null> {
  const stored = await findPlan(circuit.id);
  if (!stored) return null;
  const { plan } = stored;
  const [view, chosen, ticks, trayNotes, measured, matches] = await Promise.all([
    jobViewAt(String(job.id)),
    repairOf(job.id),
    ticksOf(job.id),
    trayNotesOf(job.id),
    measuredSteps(circuit.id),
    jobMatches(job, circuit),
  ]);
  const diagnosis = diagnosisOf(view);
  const likely = chosen ? { targets: chosen.targets, open: false } : likelyTargets(job, diagnosis);
  const reaches = (id: string): boolean => Object.hasOwn(plan.targets, id);
  const targets = likely.targets.filter(reaches);
  const prefer = chosen?.prefer ?? "quickest";
  const pace = shopPace(plan, measured);
  const learnt = new Map(plan.steps.map((step) => [step.id, learntMinutes(step, pace, measured)]));
  const minutesOf = (step: AccessStep): number => learnt.get(step.id)?.minutes ?? step.minutes;
  const adapted = fittingsOfMatches(matches.filter(({ part }) => likely.targets.includes(part)));
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
    unreached: likely.targets.filter((id) => !reaches(id)),
    likeliestOnly: likely.open && targets.length > 0,
    prefer,
    ways,
    way,
    route,
    steps,
    fittings: placeFittings(plan, steps, adapted),
    fittingsNeedBatteryOff,
    off,
    ticks,
    trayNotes,
    pace,
    learnt,
    minutesOf,
  };
}
