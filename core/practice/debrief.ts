import { activeSuspects, cellsOf } from "../diagnose/belief/activeSuspects";
import {
  type Belief,
  type PartBelief,
  partBelief,
  rankedRepairs,
  repairBelief,
} from "../diagnose/belief/belief";
import { believeThrough } from "../diagnose/history/failedRepair";
import { proofOf } from "../diagnose/proof/proof";
import { attentionMinutes, minutesNow, openPlaces, testCost } from "../diagnose/tests/access";
import { followChart, swapBySymptom } from "../diagnose/tests/flowChart";
import { forecastTest } from "../diagnose/tests/forecast";
import { nextTests } from "../diagnose/tests/nextTest";
import { visitsOf } from "../diagnose/tests/visit";
import type { Fault } from "../fault/fault";
import { suspectGroupId } from "../fault/faultId";
import { notListed, type Repair, sameParts } from "../fault/repair";
import { minutesMinor, type StoppingCosts } from "../money/stoppingCosts";
import { allTools } from "../predict/observations/tool";
import type { Reading, Test } from "../predict/reading";
import { testOf } from "../predict/reading";
import { brierScore, type Said } from "./calibration";
import { followAirway } from "./followAirway";
import {
  accessStepsTo,
  driveMinutes,
  isCured,
  type PracticeAct,
  repairCost,
  scoreOf,
  stretchesOf,
} from "./practiceBay";
import { faultOf, type PracticeCase, type PracticeCircuit, vehicleOf } from "./practiceCase";
import type { SimulatedVehicle } from "./simulatedVehicle";

/** The worth of a test at the time it was taken. */
export interface TestWorth {
  readonly look: Test;
  readonly bits: number;
  readonly minutes: number;
  /** Bits per minute, with some minutes of attention added to every test, as in Airway's ranking. */
  readonly rate: number;
}

/** One step of a case in the debrief. */
export interface DebriefStep {
  readonly act: PracticeAct;
  /** Minutes on the clock after the step. */
  readonly minutes: number;
  readonly moneyMinor: number;
  /** Parts that may need work, likeliest first, before and after. */
  readonly before: readonly PartBelief[];
  readonly after: readonly PartBelief[];
  /** Repairs that were possible before and are not after. */
  readonly ruledOut: readonly Repair[];
  /** The test that was taken and the one that would have told most; null if no test was taken. */
  readonly own: TestWorth | null;
  readonly best: TestWorth | null;
  /** Bits per minute by which the best test would have been better. */
  readonly lost: number;
  /** Airway's belief in the parts fitted, if any were. */
  readonly engineOdds: number | null;
  /** Whether the parts fitted were proved bad before; null if none were fitted. */
  readonly proof: FittedOn | null;
}

/** What a purchase rested on. */
export interface FittedOn {
  readonly proved: boolean;
  /** The first test that was missing to prove it; null if it was proved, or if no tool can. */
  readonly missing: Test | null;
}

/** What a way of working would have cost on the same vehicle. */
export interface StrategyCost {
  readonly minutes: number;
  readonly moneyMinor: number;
  /** Trips to a place of the vehicle while testing. */
  readonly visits: number;
  /** The parts it ended at. */
  readonly fitted: readonly string[];
  readonly wrong: number;
}

export interface Debrief {
  readonly truth: { readonly parts: readonly string[]; readonly fault: string };
  readonly steps: readonly DebriefStep[];
  readonly own: StrategyCost & { readonly held: boolean };
  /** Replacing parts by guess, the printed chart, and Airway. */
  readonly guess: StrategyCost;
  readonly chart: StrategyCost;
  readonly airway: StrategyCost;
  /** The odds given before each purchase, and whether it cured the vehicle. */
  readonly said: readonly Said[];
  readonly brier: number | null;
}

const thinkable = 0.03;
const ruledOutBelow = 0.005;
/** Parts less likely than this are not listed. */
const leastShown = 0.0005;

/**
 * The debrief of a case: every test compared with the one that would have told most, what it ruled out, where the
 * trainee's odds and Airway's belief differed, and what other ways of working would have cost on the same vehicle.
 * @returns a generator with one step at a time, so that the caller can yield between steps
 */
export function* debriefing(
  on: PracticeCircuit,
  own: PracticeCase,
  acts: readonly PracticeAct[],
  costs: StoppingCosts,
): Generator<void, Debrief> {
  const placed = faultOf(on.exact, own);
  if (!placed.ok) throw new Error("the case's fault is not in its circuit");
  const truth = placed.value;
  const steps: DebriefStep[] = [];
  for (const step of stepsOf(on, own, acts, truth.parts, costs)) {
    steps.push(step);
    yield;
  }
  const said = saidOf(acts, truth.parts);
  const end = scoreOf(own, acts, costs);
  return {
    truth: { parts: truth.parts, fault: suspectGroupId(truth.names) },
    steps,
    own: {
      minutes: end.minutes,
      moneyMinor: end.moneyMinor,
      visits: visitsOf(
        on.compiled,
        acts.flatMap((act) => (act.act === "look" ? [testOf(act.reading)] : [])),
      ),
      fitted: end.fitted,
      wrong: said.filter(({ right }) => !right).length,
      held: end.over === "held",
    },
    ...otherWays(on, own, truth, costs),
    said,
    brier: said.length === 0 ? null : brierScore(said),
  };
}

/** The odds of each purchase; it was right if afterwards every faulty part is new and good. */
export function saidOf(acts: readonly PracticeAct[], truth: readonly string[]): Said[] {
  return acts.flatMap((act, index): Said[] =>
    act.act === "fit" ? [{ p: act.odds, right: isCured(truth, acts.slice(0, index + 1)) }] : [],
  );
}

function* stepsOf(
  { compiled }: PracticeCircuit,
  own: PracticeCase,
  acts: readonly PracticeAct[],
  truth: readonly string[],
  costs: StoppingCosts,
): Generator<DebriefStep> {
  const open = new Set<string>();
  const beliefAfter = (count: number): Belief => {
    const { readings, repairs } = stretchesOf(own, acts.slice(0, count), truth);
    return believeThrough(compiled, readings, repairs);
  };
  let belief = beliefAfter(0);
  for (const [index, act] of acts.entries()) {
    const was = belief;
    const worth = act.act === "look" ? worthOf(compiled, was, testOf(act.reading), open) : null;
    if (act.act === "open") open.add(act.place);
    if (act.act === "fit") for (const place of act.opened) open.add(place);
    if (act.act === "drive") open.clear();
    if (act.act === "look" || act.act === "drive") belief = beliefAfter(index + 1);
    const { minutes, moneyMinor } = scoreOf(own, acts.slice(0, index + 1), costs);
    const [before, after] = [repairBelief(compiled, was), repairBelief(compiled, belief)];
    yield {
      act,
      minutes,
      moneyMinor,
      before: leading(before),
      after: leading(after),
      ruledOut: [...before].flatMap(([repair, p]) =>
        p >= thinkable && (after.get(repair) ?? 0) < ruledOutBelow ? [repair] : [],
      ),
      own: worth?.own ?? null,
      best: worth?.best ?? null,
      lost: worth?.best ? Math.max(0, worth.best.rate - worth.own.rate) : 0,
      engineOdds: act.act === "fit" ? oddsOf(was, compiled, act.parts) : null,
      proof: act.act === "fit" ? fittedOn(compiled, was, act.parts) : null,
    };
  }
}

const leading = (repairs: ReadonlyMap<Repair, number>): PartBelief[] =>
  partBelief(repairs).filter(({ p }) => p >= leastShown);

/** Whether parts were proved bad when they were fitted: those of them that the belief names as a repair. */
function fittedOn(compiled: PracticeCircuit["compiled"], belief: Belief, parts: readonly string[]): FittedOn {
  const repairs = rankedRepairs(repairBelief(compiled, belief)).map(([repair]) => repair);
  const repair = repairs.find((own) => sameParts(own.parts, parts));
  if (!repair) return { proved: false, missing: null };
  const { complete, missing } = proofOf(compiled, belief, repair, allTools);
  return { proved: complete, missing: missing[0]?.look ?? null };
}

/** Belief that these parts are all that has to be replaced. */
function oddsOf(belief: Belief, compiled: PracticeCircuit["compiled"], parts: readonly string[]): number {
  let sum = 0;
  for (const [repair, p] of repairBelief(compiled, belief))
    if (repair !== notListed && repair.parts.every((part) => parts.includes(part))) sum += p;
  return sum;
}

function worthOf(
  compiled: PracticeCircuit["compiled"],
  belief: Belief,
  test: Test,
  open: ReadonlySet<string>,
): { own: TestWorth; best: TestWorth | null } {
  const active = activeSuspects(compiled, belief);
  const { bits } = forecastTest(compiled, active, cellsOf(compiled, belief, active), test);
  const minutes = minutesNow(testCost(compiled, test), open);
  const own = { look: test, bits, minutes, rate: bits / (minutes + attentionMinutes) };
  const [best] = nextTests(compiled, belief, { tools: allTools, school: "least-time", count: 1 });
  return {
    own,
    best: best
      ? {
          look: best.look,
          bits: best.bits,
          minutes: best.minutes,
          rate: best.bits / (best.minutes + attentionMinutes),
        }
      : null,
  };
}

/** The cost on this vehicle of replacing parts by guess, of the printed chart, and of Airway. */
function otherWays(
  on: PracticeCircuit,
  own: PracticeCase,
  fault: Fault,
  costs: StoppingCosts,
): Pick<Debrief, "guess" | "chart" | "airway"> {
  const { compiled } = on;
  const truth = fault.parts;
  /** Fits one set after another until every faulty part was among them; anything still faulty then is cured at once. */
  const fitting = (
    sets: readonly (readonly string[])[],
    minutesBefore: number,
    taken: readonly Reading[],
  ): StrategyCost => {
    const visits = visitsOf(compiled, taken.filter(({ heard }) => !heard).map(testOf));
    let open: ReadonlySet<string> = openPlaces(compiled, taken);
    const fitted = new Set<string>();
    let [minutes, minor, wrong] = [minutesBefore, 0, 0];
    for (const set of [...sets, truth]) {
      const parts = set.filter((part) => !fitted.has(part));
      if (parts.length === 0 && set !== truth) continue;
      const cost = repairCost(compiled, parts, costs);
      minutes += cost.minutes + accessStepsTo(compiled.netlist.circuit, parts, open).minutes + driveMinutes;
      // It was reassembled for the test drive.
      open = new Set();
      minor += cost.priceMinor;
      for (const part of parts) fitted.add(part);
      if (truth.every((part) => fitted.has(part))) break;
      wrong += 1;
      minor += costs.comebackMinor;
    }
    return { minutes, moneyMinor: minor + minutesMinor(minutes, costs), visits, fitted: [...fitted], wrong };
  };
  const byBelief = rankedRepairs(repairBelief(compiled, believeThrough(compiled, own.complaint, [])))
    .slice(0, mostGuesses)
    .map(([{ parts }]) => parts);
  const symptom = swapBySymptom(compiled, own.complaint);
  const vehicle = (): SimulatedVehicle => vehicleOf(on.exact, own, fault, 31);
  const chart = followChart(compiled, vehicle(), own.complaint);
  const job = followAirway(compiled, vehicle(), own.complaint, { looks: 1, tools: allTools, costs });
  return {
    guess: fitting([symptom === "" ? [] : [symptom], ...byBelief], 0, []),
    chart: fitting([[chart.replace]], chart.minutes, chart.readings),
    airway: fitting([job.diagnosis.verdict.replace], job.minutes, job.readings),
  };
}

/** Number of guesses someone makes, by what is likeliest on the complaint. */
const mostGuesses = 3;
