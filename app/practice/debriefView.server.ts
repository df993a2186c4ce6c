import type { Circuit } from "@core/circuit/circuit";
import type { PartBelief } from "@core/diagnose/belief/belief";
import { faultId } from "@core/fault/faultId";
import { notListed, repairText } from "@core/fault/repair";
import { type Debrief, type DebriefStep, debriefing, type TestWorth } from "@core/practice/debrief";
import { faultLeft, type PracticeAct } from "@core/practice/practiceBay";
import { caseFaultId, faultOf, type PracticeCase, type PracticeCircuit } from "@core/practice/practiceCase";
import { probedPoint } from "@core/predict/probedPoint";
import { testOf } from "@core/predict/reading";
import { perCircuit } from "@core/predict/tables/perCircuit";
import { minutesText, tenthsText } from "@core/units/wording";
import { shopTerms } from "@db/repositories/settings.server";
import { faultWords, nameOfRepair, repairName } from "@words/partName";
import { setupText } from "@words/tests/setupText";
import { testText } from "@words/tests/testText";
import { LRUCache } from "lru-cache";
import { redirect } from "react-router";
import { sheetStatesAt } from "../job/jobView.server";
import { layoutOf } from "../sheet/layouts.server";
import { priceText } from "../text/money";
import { actWords, bayAt, customerSays } from "./bayView.server";
import { inSlices } from "./inSlices.server";

/** Cached debriefs of a circuit's finished cases, by case id. */
const debriefs = perCircuit(() => new LRUCache<string, Promise<Debrief>>({ max: debriefsKept }));
const debriefsKept = 50;

/** The vehicle's true state at a test: nominal, with what was wrong with it then; null if nothing was. */
function stoodAt(on: PracticeCircuit, hidden: PracticeCase, acts: readonly PracticeAct[], index: number) {
  const act = acts[index];
  const fault = faultOf(on.exact, hidden);
  if (act?.act !== "look" || !fault.ok) return null;
  const left = faultLeft(on.exact, fault.value, acts.slice(0, index));
  const test = testOf(act.reading);
  const key = test.key === "run" ? ("run" as const) : ("off" as const);
  const setting = test.setting ?? on.exact.circuit.settings[0] ?? "off";
  const [state] = sheetStatesAt(
    { netlist: on.exact },
    [left.names.length === 0 ? "healthy" : faultId(left.names)],
    [{ ...test, key, setting }],
  );
  return state ? { state, probe: probedPoint(test), unplugged: test.unplugged ?? [] } : null;
}

/** The expected information of a test. */
const worthView = (circuit: Circuit, own: TestWorth | null) =>
  own && {
    words: `${testText(circuit, own.look)}, ${setupText(circuit, own.look)}`,
    bits: own.bits,
    minutes: minutesText(own.minutes),
    rate: own.rate,
  };

/** A step of the case: the action, and the belief before and after. */
function stepView(on: PracticeCircuit, step: DebriefStep) {
  const { circuit } = on.exact;
  const odds = (own: readonly PartBelief[]) =>
    own.map(({ part, p }) => ({
      part: part ?? repairText(notListed),
      words: part === null ? "something else" : repairName(circuit, [part]),
      p,
    }));
  return {
    act: step.act.act,
    ...actWords(on, step.act),
    clock: tenthsText(step.minutes),
    before: odds(step.before),
    after: odds(step.after),
    ruledOut: step.ruledOut.map((repair) => nameOfRepair(circuit, repair)),
    own: worthView(circuit, step.own),
    best: worthView(circuit, step.best),
    lost: step.lost,
    said: step.act.act === "fit" ? step.act.odds : null,
    engineOdds: step.engineOdds,
    proof: step.proof && {
      proved: step.proof.proved,
      missing: step.proof.missing
        ? `${testText(circuit, step.proof.missing)}, ${setupText(circuit, step.proof.missing)}`
        : null,
    },
  };
}

/** A case step by step; null while it goes on. */
export async function debriefView(id: string | undefined) {
  const { stored, on, acts, bay } = await bayAt(id);
  if (!bay.standing.over) throw redirect(`/practice/cases/${stored.id}`);
  const kept = debriefs(on.compiled);
  const made = kept.get(stored.id) ?? inSlices(debriefing(on, stored.hidden, acts, stored.costs));
  kept.set(stored.id, made);
  const debrief = await made;
  const { circuit } = on.exact;
  const { currency } = await shopTerms();
  const way = (own: Debrief["guess"]) => ({
    minutes: tenthsText(own.minutes),
    money: priceText(own.moneyMinor, currency),
    moneyMinor: own.moneyMinor,
    visits: own.visits,
    fitted: repairName(circuit, own.fitted),
    wrong: own.wrong,
  });
  return {
    id: stored.id,
    learner: stored.learner,
    title: stored.title,
    says: customerSays(circuit.settings, stored.hidden.complaint),
    held: debrief.own.held,
    truth: {
      words: `${repairName(circuit, debrief.truth.parts)}: ${faultWords(caseFaultId(stored.hidden))}`,
      fault: debrief.truth.fault,
    },
    steps: debrief.steps.map((step, index) => ({
      number: index + 1,
      ...stepView(on, step),
      stood: stoodAt(on, stored.hidden, acts, index),
    })),
    ways: {
      own: way(debrief.own),
      airway: way(debrief.airway),
      chart: way(debrief.chart),
      guess: way(debrief.guess),
    },
    brier: debrief.brier,
    circuit,
    layout: layoutOf(on.compiled.netlist),
  };
}

export type DebriefData = Awaited<ReturnType<typeof debriefView>>;
