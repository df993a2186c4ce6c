import { failsWithin } from "@core/access/failureChance";
import { fastenerText } from "@core/access/fastener";
import { type AccessPlan, type AccessStep, testStepId } from "@core/access/plan";
import { planTemplates } from "@core/access/planTemplate";
import { refitting } from "@core/access/refitting";
import {
  type Preference,
  preferences,
  quickestRoute,
  type Route,
  routeOf,
  stepsInOrder,
} from "@core/access/route";
import { cautionsOfStep } from "@core/access/stepCaution";
import { type LearntMinutes, learntMinutes, shopPace } from "@core/access/stepTimes";
import { callsBefore, plannedScrews, type Tray, type TrayEntry, trayOf } from "@core/access/tray";
import { wearingKinds } from "@core/access/wearingPart";
import { type PlaceSign, whereIsIt } from "@core/access/whereIsIt";
import { type OtherPart, whileThere } from "@core/access/whileThere";
import type { Circuit } from "@core/circuit/circuit";
import type { Diagnosis } from "@core/diagnose/diagnose";
import { listedPriceMinor, type PartDescription } from "@core/match/partDescription";
import { minutesMinor, repairDefaults, type StoppingCosts } from "@core/money/stoppingCosts";
import type { Job } from "@db/repositories/jobs.server";
import { listParts } from "@db/repositories/parts.server";
import { findPlan, planNotesOf } from "@db/repositories/plans.server";
import { measuredSteps, type RepairTick, repairOf, ticksOf } from "@db/repositories/repairs.server";
import { shopTerms } from "@db/repositories/settings.server";
import { backRuleText, backTitle, trayCallText } from "@words/accessWords";
import { repairName } from "@words/partName";
import { stepCautionWords } from "@words/stepCautionWords";
import { diagnosisOf } from "../job/diagnosis.server";
import { jobViewAt } from "../job/jobView.server";
import { clockText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";

/** The parts a job replaces if nobody has chosen: those decided on, otherwise those of the verdict. */
function likelyTargets(job: Job, { verdict }: Diagnosis): { targets: readonly string[]; open: boolean } {
  if (job.fitted) return { targets: job.fitted, open: false };
  return { targets: verdict.replace, open: verdict.state === "open" };
}

const tickOf = (ticks: readonly RepairTick[], step: string, way: "in" | "back") => {
  const tick = ticks.find((one) => one.step === step && one.way === way);
  if (!tick) return null;
  const { id, screws, minutes, takenAt } = tick;
  return { id, screws, minutes, time: clockText(takenAt, shopZone()) };
};

interface Way {
  readonly prefer: Preference;
  readonly route: ReturnType<typeof quickestRoute>;
}

/** One route to choose from, and the other routes with the same steps. */
function wayView({ prefer, route }: Way, ways: readonly Way[]) {
  if (!route.ok) return { prefer, problem: route.problems[0]?.message ?? "no route" };
  const stepsOf = ({ steps }: Route): string => steps.map(({ id }) => id).join();
  const { minutes, expected, nextPersonMinutes } = route.value;
  const like = ways.find((other) => other.route.ok && stepsOf(other.route.value) === stepsOf(route.value));
  return { prefer, minutes, expected, nextPersonMinutes, same: like?.prefer ?? prefer };
}

type StoredNotes = Awaited<ReturnType<typeof planNotesOf>>;

interface StepFacts {
  readonly minutes: number;
  readonly learnt: LearntMinutes | null;
  readonly notes: StoredNotes;
  readonly ticks: readonly RepairTick[];
}

/** What is worth knowing about a step before it is done. */
const stepDetail = ({ plugs = [], hangs, risk, nextPerson }: AccessStep): string[] => [
  ...plugs.flatMap(({ id, tab }) => (tab ? [`${id}: ${tab} its tab`] : [])),
  ...(hangs ? [`${hangs} then hangs by its wires. Hold it and tie it up`] : []),
  ...(risk ? [`${Math.round(risk.p * 100)} in 100: ${risk.what}, ${risk.minutes} min more`] : []),
  ...(nextPerson ? [`for the next person: ${nextPerson.why}`] : []),
];

/** A removal step. */
const stepView = (step: AccessStep, { minutes, learnt, notes, ticks }: StepFacts) => ({
  id: step.id,
  title: step.title,
  minutes,
  learnt,
  screws: plannedScrews(step).out,
  fasteners: (step.fasteners ?? []).map(fastenerText),
  detail: stepDetail(step),
  tools: step.tools ?? [],
  cautions: cautionsOfStep(step).map((caution) => stepCautionWords[caution]),
  notes: notes
    .filter((note) => note.step === step.id)
    .map(({ id, words, struckAt }) => ({ id, words, struck: struckAt !== null })),
  tick: tickOf(ticks, step.id, "in"),
});

/** The tray, with its warnings for each step. */
const trayView = ({ calls, ...tray }: Tray) => ({
  ...tray,
  calls: calls.map((call) => ({ step: call.step.id, kind: call.kind, words: trayCallText(call) })),
});

interface BackFacts {
  readonly off: boolean;
  readonly steps: readonly AccessStep[];
  readonly notes: StoredNotes;
  readonly ticks: readonly RepairTick[];
}

/** A refitting step. */
const backView = (step: ReturnType<typeof refitting>[number], { off, steps, notes, ticks }: BackFacts) => ({
  id: step.id,
  title: backTitle(step.work),
  how: step.how.map(backRuleText),
  screws: step.screws,
  closes: step.closes,
  cautions: step.cautions.map((caution) => stepCautionWords[caution]),
  calls: callsBefore(steps, ticks, step.id).map(trayCallText),
  notes: notes.filter((note) => note.step === step.id && note.struckAt === null).map(({ words }) => words),
  off,
  tick: tickOf(ticks, step.id, "back"),
});

/** Every route, the chosen one, and its steps with any others already removed. */
function routesTo(
  plan: AccessPlan,
  targets: readonly string[],
  prefer: Preference,
  minutesOf: (step: AccessStep) => number,
  ticks: readonly RepairTick[],
) {
  const ways: Way[] = preferences.map((own) => ({
    prefer: own,
    route: quickestRoute(plan, targets, { prefer: own, minutesOf }),
  }));
  const way = ways.find((own) => own.prefer === prefer)?.route;
  const route: Route = way?.ok ? way.value : routeOf([], targets);
  const off = new Set(ticks.filter((tick) => tick.way === "in").map(({ step }) => step));
  // Steps removed for another part, or before the route was changed, are refitted too.
  const steps = stepsInOrder(plan, new Set([...route.steps.map(({ id }) => id), ...off]));
  return { ways, way, route, off, steps };
}

interface Open {
  readonly plan: AccessPlan;
  readonly targets: readonly string[];
  readonly circuit: Circuit;
  readonly terms: Awaited<ReturnType<typeof shopTerms>>;
  readonly diagnosis: Diagnosis;
  readonly parts: PartDescription[];
  readonly costs: StoppingCosts;
  readonly prefer: Preference;
  readonly minutesOf: (step: AccessStep) => number;
}

/** Parts worth replacing while everything is open. */
function whileOpen({ plan, targets, circuit, terms, diagnosis, parts, costs, ...way }: Open) {
  if (targets.length === 0) return [];
  const others = besidesOf(circuit, terms.warrantyMonths, diagnosis, parts);
  const minor = (minutes: number): number => minutesMinor(minutes, costs);
  return whileThere(plan, targets, others, minor, terms.comebackMinor, way);
}

/** What is stored of a job's repair and of the route to it. */
const storedFor = (job: Job, circuit: Circuit) =>
  Promise.all([
    jobViewAt(String(job.id)),
    repairOf(job.id),
    ticksOf(job.id),
    planNotesOf(circuit.id),
    measuredSteps(circuit.id),
    shopTerms(),
    listParts(),
  ]);

/** Everything the repair page shows of a job; null if its vehicle has no plan yet. */
export async function repairView(job: Job, circuit: Circuit) {
  const stored = await findPlan(circuit.id);
  if (!stored) return null;
  const { plan } = stored;
  const reachable = Object.keys(plan.targets);
  const [view, chosen, ticks, notes, measured, terms, parts] = await storedFor(job, circuit);
  const diagnosis = diagnosisOf(view);
  const likely = chosen ? { targets: chosen.targets, open: false } : likelyTargets(job, diagnosis);
  const targets = likely.targets.filter((id) => reachable.includes(id));
  const prefer = chosen?.prefer ?? "quickest";
  const pace = shopPace(plan, measured);
  const learnt = new Map(plan.steps.map((step) => [step.id, learntMinutes(step, pace, measured)]));
  const minutesOf = (step: AccessStep): number => learnt.get(step.id)?.minutes ?? step.minutes;
  const { ways, way, route, off, steps } = routesTo(plan, targets, prefer, minutesOf, ticks);
  const entries: TrayEntry[] = ticks;
  const named = (id: string): string => (id === "lamp" ? "the lamp" : repairName(circuit, [id]));
  return {
    title: plan.title ?? plan.id,
    where: plan.where ?? null,
    currency: terms.currency,
    reachable: reachable.map((id) => ({ id, name: named(id) })),
    targets,
    unreached: likely.targets.filter((id) => !reachable.includes(id)).map(named),
    likeliestOnly: likely.open && targets.length > 0,
    prefer,
    problem: way && !way.ok ? (way.problems[0]?.message ?? null) : null,
    ways: ways.map((own) => wayView(own, ways)),
    steps: steps.map((step) =>
      stepView(step, { minutes: minutesOf(step), learnt: learnt.get(step.id) ?? null, notes, ticks }),
    ),
    back: refitting(steps, targets).map((step) =>
      // A step that was never removed needs no refitting.
      backView(step, { off: step.id === testStepId || off.has(step.id), steps, notes, ticks }),
    ),
    batteryOff: steps.some(({ kind }) => kind === "battery-off"),
    tray: trayView(trayOf(steps, entries)),
    pace,
    tools: route.tools,
    substitutes: route.substitutes,
    uses: route.uses,
    opens: route.opens.map(named),
    besides: whileOpen({
      plan,
      targets,
      circuit,
      terms,
      diagnosis,
      parts,
      costs: view.costs,
      prefer,
      minutesOf,
    }).map((other) => ({ ...other, name: named(other.part) })),
    warrantyMonths: terms.warrantyMonths,
  };
}

/** Minutes to fit a part once it is exposed (judgement). */
const fitMinutes = 2;

/** Parts worth replacing too: those that wear, with the failure probability of their kind and today's doubt. */
function besidesOf(
  circuit: Circuit,
  months: number,
  diagnosis: Diagnosis,
  catalogue: PartDescription[],
): OtherPart[] {
  const doubt = (id: string): number => diagnosis.parts.find(({ part }) => part === id)?.p ?? 0;
  return circuit.parts
    .filter(({ kind }) => wearingKinds.has(kind))
    .map(({ id, kind }) => ({
      part: id,
      priceMinor: listedPriceMinor(catalogue, circuit.id, id) ?? repairDefaults[kind]?.priceMinor ?? 0,
      fitMinutes,
      failsWithin: failsWithin(kind, months, doubt(id)),
    }));
}

export type RepairData = NonNullable<Awaited<ReturnType<typeof repairView>>>;

/** Everything the repair page shows of a job, with the odds of where the motor is by the signs noticed. */
export async function repairPageView(job: Job, circuit: Circuit, signs: readonly PlaceSign[]) {
  return {
    id: job.id,
    shelfId: circuit.id,
    fit: await repairView(job, circuit),
    templates: Object.entries(planTemplates).map(([id, { title }]) => ({ id, title })),
    where: { signs, odds: whereIsIt(signs) },
  };
}

export type RepairPageData = Awaited<ReturnType<typeof repairPageView>>;
