import { adaptationFacts } from "@core/access/adaptation";
import { failsWithin } from "@core/access/failureChance";
import { fastenerText } from "@core/access/fastener";
import { type AccessPlan, type AccessStep, testStepId } from "@core/access/plan";
import { planTemplates } from "@core/access/planTemplate";
import { type BackStep, refitting } from "@core/access/refitting";
import type { Preference, Route } from "@core/access/route";
import { cautionsOfStep } from "@core/access/stepCaution";
import { stepsWaitedFor } from "@core/access/stepOrder";
import type { LearntMinutes } from "@core/access/stepTimes";
import { callsBefore, plannedSorts, type Tray, trayOf, unexplained } from "@core/access/tray";
import { wearingKinds } from "@core/access/wearingPart";
import { type PlaceSign, whereIsIt } from "@core/access/whereIsIt";
import { type OtherPart, whileThere } from "@core/access/whileThere";
import type { Circuit } from "@core/circuit/circuit";
import type { Diagnosis } from "@core/diagnose/diagnose";
import { listedPriceMinor, type PartDescription } from "@core/match/partDescription";
import { minutesMinor, repairDefaults, type StoppingCosts } from "@core/money/stoppingCosts";
import type { Job } from "@db/repositories/jobs.server";
import { listParts } from "@db/repositories/parts.server";
import { planNotesOf } from "@db/repositories/plans.server";
import type { RepairTick, StoredTrayNote } from "@db/repositories/repairs.server";
import { shopTerms } from "@db/repositories/settings.server";
import { backRuleText, backTitle, trayCallText } from "@words/accessWords";
import { adaptationHow, adaptationTitle } from "@words/adaptationWords";
import { repairName } from "@words/partName";
import { stepCautionWords } from "@words/stepCautionWords";
import { trayNoteText } from "@words/trayWords";
import { clockText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";
import { type RepairState, repairState, type Way } from "./repairState.server";

const tickOf = (ticks: readonly RepairTick[], step: string, way: "in" | "back") => {
  const tick = ticks.find((one) => one.step === step && one.way === way);
  if (!tick) return null;
  const { id, screws, minutes, takenAt, reason } = tick;
  return { id, screws, minutes, reason, time: clockText(takenAt, shopZone()) };
};

/** One route to choose from, and the other routes with the same steps. */
function wayView({ prefer, route }: Way, ways: readonly Way[]) {
  if (!route.ok) return { prefer, problem: route.problems[0]?.message ?? "no route" };
  const stepsOf = ({ steps }: Route): string => steps.map(({ id }) => id).join();
  const { minutes, expected, nextPersonMinutes } = route.value;
  const like = ways.find((other) => other.route.ok && stepsOf(other.route.value) === stepsOf(route.value));
  const breaks = route.value.steps.flatMap(({ kind, title }) =>
    kind === "break" || kind === "cut" ? [title] : [],
  );
  return { prefer, minutes, expected, nextPersonMinutes, breaks, same: like?.prefer ?? prefer };
}

type StoredNotes = Awaited<ReturnType<typeof planNotesOf>>;

interface StepFacts {
  readonly minutes: number;
  readonly learnt: LearntMinutes | null;
  readonly notes: StoredNotes;
  readonly ticks: readonly RepairTick[];
  readonly waits: WaitsFor;
}

/** A step to tick before another, in which direction, and whether it has screws to count. */
export interface WaitView {
  readonly id: string;
  readonly title: string;
  readonly way: "in" | "back";
  readonly hasScrews: boolean;
}

/** The steps to tick before one, in one direction. */
type WaitsFor = (step: string, way: "in" | "back") => readonly WaitView[];

/** What is worth knowing about a step before it is done. */
const stepDetail = ({ plugs = [], hangs, risk, nextPerson }: AccessStep): string[] => [
  ...plugs.flatMap(({ id, tab }) => (tab ? [`${id}: ${tab} its tab`] : [])),
  ...(hangs ? [`${hangs} then hangs by its wires. Hold it and tie it up`] : []),
  ...(risk ? [`${Math.round(risk.p * 100)} in 100: ${risk.what}, ${risk.minutes} min more`] : []),
  ...(nextPerson ? [`for the next person: ${nextPerson.why}`] : []),
];

/** A removal step. */
const stepView = (step: AccessStep, { minutes, learnt, notes, ticks, waits }: StepFacts) => ({
  id: step.id,
  title: step.title,
  minutes,
  learnt,
  sorts: plannedSorts(step, "in"),
  waits: waits(step.id, "in"),
  fasteners: (step.fasteners ?? []).map(fastenerText),
  detail: stepDetail(step),
  tools: step.tools ?? [],
  cautions: cautionsOfStep(step).map((caution) => stepCautionWords[caution]),
  notes: notes
    .filter((note) => note.step === step.id)
    .map(({ id, words, struckAt }) => ({ id, words, struck: struckAt !== null })),
  tick: tickOf(ticks, step.id, "in"),
});

/** The tray, with its warnings for each step and what became of lost and spare screws. */
const trayView = (tray: Tray, notes: readonly StoredTrayNote[]) => ({
  ...tray,
  calls: tray.calls.map((call) => ({ step: call.step.id, kind: call.kind, words: trayCallText(call) })),
  unexplained: unexplained(tray),
  notes: notes.map((note) => ({ id: note.id, kind: note.kind, text: trayNoteText(note) })),
});

interface BackFacts {
  readonly off: boolean;
  readonly steps: readonly AccessStep[];
  readonly notes: StoredNotes;
  readonly ticks: readonly RepairTick[];
  readonly waits: WaitsFor;
  readonly partName: (id: string) => string;
}

/** What is peculiar to work on a new part, or to refitting a step. */
function workView({ work, how }: BackStep, partName: BackFacts["partName"]) {
  if (work.does !== "adapt")
    return {
      title: backTitle(work),
      minutes: null,
      tools: [],
      how: how.map(backRuleText),
      sorts: work.does === "undo" ? plannedSorts(work.step, "back") : [],
    };
  const { part, adaptation } = work.fitting;
  return {
    title: `${partName(part)}: ${backTitle(work)}`,
    minutes: adaptation.minutes,
    tools: adaptationFacts[adaptation.work].tools,
    how: adaptationHow[adaptation.work],
    sorts: [],
  };
}

/** A refitting step. */
const backView = (step: BackStep, { off, steps, notes, ticks, waits, partName }: BackFacts) => ({
  id: step.id,
  does: step.work.does,
  ...workView(step, partName),
  waits: waits(step.id, "back"),
  closes: step.closes,
  cautions: step.cautions.map((caution) => stepCautionWords[caution]),
  calls: callsBefore(steps, ticks, step.id).map(trayCallText),
  notes: notes.filter((note) => note.step === step.id && note.struckAt === null).map(({ words }) => words),
  off,
  tick: tickOf(ticks, step.id, "back"),
});

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

/** Everything the repair page shows of a job; null if its vehicle has no plan yet. */
export async function repairView(job: Job, circuit: Circuit) {
  const state = await repairState(job, circuit);
  if (!state) return null;
  const {
    plan,
    view,
    diagnosis,
    targets,
    prefer,
    ways,
    way,
    steps,
    fittings,
    ticks,
    allTicks,
    trayNotes,
    off,
  } = state;
  const [notes, terms, parts] = await Promise.all([planNotesOf(circuit.id), shopTerms(), listParts()]);
  const named = (id: string): string => (id === "lamp" ? "the lamp" : repairName(circuit, [id]));
  const titles = new Map([
    ...steps.map(({ id, title }) => [id, title] as const),
    ...fittings.map(({ fitting }) => [fitting.id, adaptationTitle(fitting.adaptation)] as const),
  ]);
  const waits: WaitsFor = (step, direction) =>
    stepsWaitedFor({ steps, fittings }, ticks, { step, way: direction }).map((id) => ({
      id,
      title: titles.get(id) ?? id,
      way: off.has(id) || fittings.some(({ fitting }) => fitting.id === id) ? "back" : "in",
      hasScrews: steps.some((own) => own.id === id && (own.fasteners ?? []).length > 0),
    }));
  // Steps of an earlier round still count in the tray.
  const tray = trayOf(plan.steps, allTicks, trayNotes);
  return {
    title: plan.title ?? plan.id,
    where: plan.where ?? null,
    currency: terms.currency,
    reachable: Object.keys(plan.targets).map((id) => ({ id, name: named(id) })),
    targets,
    unreached: state.unreached.map(named),
    likeliestOnly: state.likeliestOnly,
    listedSince: state.listedSince.map((id) => ({ id, name: named(id) })),
    prefer,
    problem: way && !way.ok ? (way.problems[0]?.message ?? null) : null,
    ways: ways.map((own) => wayView(own, ways)),
    steps: steps.map((step) =>
      stepView(step, {
        minutes: state.minutesOf(step),
        learnt: state.learnt.get(step.id) ?? null,
        notes,
        ticks,
        waits,
      }),
    ),
    back: refitting(steps, targets, fittings).map((step) =>
      backView(step, {
        off: isDue(step, state),
        steps,
        notes,
        ticks,
        waits,
        partName: named,
      }),
    ),
    batteryOff: steps.some(({ kind }) => kind === "battery-off"),
    /** The new parts want the negative off, and the plan has no step for it. */
    negativeByHand: state.fittingsNeedBatteryOff && !steps.some(({ kind }) => kind === "battery-off"),
    checkDue: job.stage === "proof-due",
    tray: trayView(tray, trayNotes),
    pace: state.pace,
    tools: [
      ...new Set([
        ...state.route.tools,
        ...fittings.flatMap(({ fitting }) => adaptationFacts[fitting.adaptation.work].tools),
      ]),
    ],
    substitutes: state.route.substitutes,
    uses: state.route.uses,
    opens: state.route.opens.map(named),
    besides: whileOpen({
      plan,
      targets,
      circuit,
      terms,
      diagnosis,
      parts,
      costs: view.costs,
      prefer,
      minutesOf: state.minutesOf,
    }).map((other) => ({ ...other, name: named(other.part) })),
    warrantyMonths: terms.warrantyMonths,
  };
}

/** Whether a refitting step is to be done: the test always is, and what never came off is not. */
const isDue = ({ id, work }: BackStep, { off }: RepairState): boolean =>
  id === testStepId || work.does === "adapt" || off.has(id);

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
