import { describe, expect, test } from "@jest/globals";
import { attentionMinutes } from "../diagnose/tests/access";
import { defaultStoppingCosts, minutesMinor } from "../money/stoppingCosts";
import type { Test } from "../predict/reading";
import { finished } from "../testing/finished";
import { shippedEngine } from "../testing/shippedCircuit";
import { debriefing, saidOf } from "./debrief";
import {
  accessStepsTo,
  driveMinutes,
  faultLeft,
  goodParts,
  isCured,
  type PracticeAct,
  PracticeBay,
  repairCost,
  scoreOf,
} from "./practiceBay";
import { complaintOf, faultOf, type PracticeCase, practiceCircuit } from "./practiceCase";

const on = practiceCircuit(shippedEngine("godwit-four-speed-feed"));
const costs = defaultStoppingCosts;
const { circuit } = on.exact;

function caseOf(fault: PracticeCase["fault"], kind: PracticeCase["kind"] = "single"): PracticeCase {
  const own = { level: "usual" as const, kind, fault, seed: 77 };
  const placed = faultOf(on.exact, own);
  if (!placed.ok) throw new Error("no such fault");
  return { ...own, complaint: complaintOf(on.exact, own, placed.value, 0) };
}

const relay = caseOf([{ where: "K5", mode: "stuck-open", value: null }]);
const tight = caseOf(
  [
    { where: "M1", mode: "tight", value: 1.4 },
    { where: "R2.link", mode: "open", value: null },
  ],
  "cause",
);

const fit = (...parts: string[]): PracticeAct => ({
  act: "fit",
  parts,
  odds: 0.7,
  opened: [],
  minutes: 10,
  priceMinor: 1000,
});
const drive = (held: boolean): PracticeAct => ({
  act: "drive",
  held,
  minutes: driveMinutes,
  costMinor: held ? 0 : costs.comebackMinor,
  complaint: held ? [] : relay.complaint,
});
const seen = (look: Test, own: PracticeCase, before: readonly PracticeAct[]): PracticeAct => {
  const acted = new PracticeBay(on, own, before, costs).look(look);
  if (!acted.ok) throw new Error(acted.why);
  return acted.act;
};
const open = (place: string): PracticeAct => ({ act: "open", place, minutes: 1 });

describe("parts that are new and still good", () => {
  const truth = ["M1", "R2"];
  test.each([
    ["nothing done", [], [], false],
    ["the victim alone", [fit("R2")], ["R2"], false],
    ["the victim alone, driven: dead again", [fit("R2"), drive(false)], [], false],
    ["the cause alone, driven: the victim was never good", [fit("M1"), drive(false)], ["M1"], false],
    ["both at once", [fit("M1", "R2")], ["M1", "R2"], true],
    ["the victim, driven, then both", [fit("R2"), drive(false), fit("M1", "R2")], ["M1", "R2"], true],
    ["the cause, driven, then the victim", [fit("M1"), drive(false), fit("R2")], ["M1", "R2"], true],
    ["the victim, driven, then the cause alone", [fit("R2"), drive(false), fit("M1")], ["M1"], false],
    ["what has nothing to do with it", [fit("K5"), drive(false)], ["K5"], false],
  ] as const)("%s", (_, acts, good, cured) => {
    expect([...goodParts(truth, acts)].sort()).toEqual([...good].sort());
    expect(isCured(truth, acts)).toBe(cured);
  });

  test("leaves the parts of the fault that are not", () => {
    const placed = faultOf(on.exact, tight);
    if (!placed.ok) throw new Error("no fault");
    const left = (...acts: PracticeAct[]): string[] =>
      faultLeft(on.exact, placed.value, acts).names.map(({ mode }) => mode);
    expect(left()).toEqual(["tight", "open"]);
    expect(left(fit("R2"))).toEqual(["tight"]);
    expect(left(fit("R2"), drive(false))).toEqual(["tight", "open"]);
    expect(left(fit("M1"))).toEqual(["open"]);
    expect(left(fit("M1", "R2"))).toEqual([]);
  });

  test("makes the odds right or wrong, purchase by purchase", () => {
    const acts = [fit("R2"), drive(false), fit("M1"), drive(false), fit("R2"), drive(true)];
    expect(saidOf(acts, truth)).toEqual([
      { p: 0.7, right: false },
      { p: 0.7, right: false },
      { p: 0.7, right: true },
    ]);
  });
});

describe("clock and money", () => {
  test("are sums over the actions: the hour by its minutes, each comeback once", () => {
    const acts = [open("dash-box"), fit("M1"), drive(false), fit("K5"), drive(true)];
    const end = scoreOf(relay, acts, costs);
    // By hand: 1 + 10 + 5 + 10 + 5.
    expect(end.minutes).toBe(31);
    expect(end.moneyMinor).toBe(2000 + costs.comebackMinor + minutesMinor(31, costs));
    expect(end).toMatchObject({ comebacks: 1, over: "held", fitted: ["M1", "K5"] });
  });

  test("parts by their kind, access by what is not open yet", () => {
    expect(repairCost(on.compiled, ["K5"], costs)).toEqual({ priceMinor: 1800, minutes: 5 });
    expect(repairCost(on.compiled, ["M1", "R2"], costs)).toEqual({ priceMinor: 13_000, minutes: 45 });
    expect(repairCost(on.compiled, ["X2", "W15"], costs)).toEqual({ priceMinor: 2000, minutes: 55 });
    expect(repairCost(on.compiled, ["CAR"], costs)).toEqual({ priceMinor: 1800, minutes: 10 });
    const dear = {
      ...costs,
      repairs: { relay: { priceMinor: 9900, minutes: 6 }, K5: { priceMinor: 1, minutes: 1 } },
    };
    expect(repairCost(on.compiled, ["K5"], dear)).toEqual({ priceMinor: 1, minutes: 1 });
    expect(accessStepsTo(circuit, ["M1", "K5"], new Set())).toEqual({
      places: ["dash-box", "behind-glovebox"],
      minutes: 6,
    });
    expect(accessStepsTo(circuit, ["M1", "K5"], new Set(["dash-box"]))).toEqual({
      places: ["behind-glovebox"],
      minutes: 5,
    });
    expect(accessStepsTo(circuit, [], new Set())).toEqual({ places: [], minutes: 0 });
  });
});

describe("the debrief of a stuck relay", () => {
  const acts: PracticeAct[] = [];
  const before: PracticeAct[] = [open("dash-box")];
  acts.push(...before);
  const looks: Test[] = [
    { test: "airflow", key: "run", setting: "3" },
    { test: "light", probe: "K5.30", clip: "G1.-", key: "run", setting: "4", unplugged: ["K5"] },
    { test: "swap", at: "K5", key: "run", setting: "4" },
  ];
  for (const look of looks) acts.push(seen(look, relay, acts));
  acts.push({ ...fit("K5"), odds: 0.95 } as PracticeAct, drive(true));
  const debrief = finished(debriefing(on, relay, acts, costs));
  const steps = debrief.steps;

  test("has a step for each action, its clock rising, its belief carried on", () => {
    expect(steps.map(({ act }) => act.act)).toEqual(["open", "look", "look", "look", "fit", "drive"]);
    steps.slice(1).forEach((step, i) => {
      expect(step.minutes).toBeGreaterThanOrEqual(steps[i]?.minutes ?? 0);
      expect(step.before).toEqual(steps[i]?.after);
    });
    expect(steps.at(-1)?.minutes).toBe(debrief.own.minutes);
  });

  test("weighs bits over minutes plus attention, the trainee's test next to the best", () => {
    for (const { own, best, lost } of steps) {
      if (!own) continue;
      expect(own.rate).toBeCloseTo(own.bits / (own.minutes + attentionMinutes), 12);
      if (best) expect(best.rate).toBeCloseTo(best.bits / (best.minutes + attentionMinutes), 12);
      expect(lost).toBeGreaterThanOrEqual(0);
    }
    // A known-good relay decides what three tests around the relay would; it tells more than checking the air again.
    expect(steps[3]?.own?.bits).toBeGreaterThan(steps[1]?.own?.bits ?? 0);
  });

  test("the relay is believed once the known-good one cured it, and others are ruled out", () => {
    const odds = (step: number): number => steps[step]?.after.find(({ part }) => part === "K5")?.p ?? 0;
    // The swap may have cured a contact in the socket, so the relay leads but is not alone.
    expect(steps[3]?.after[0]?.part).toBe("K5");
    expect(odds(3)).toBeGreaterThan(0.7);
    expect(odds(3)).toBeGreaterThan(odds(1));
    // Feed at the relay's contact clears the fuses before it.
    for (const fuse of ["F2", "F11"]) expect(steps[2]?.ruledOut).toContainEqual({ parts: [fuse] });
    expect(steps[4]?.engineOdds).toBeGreaterThan(0.7);
  });

  test("says what the purchase rested on: a known-good relay that cured it is proof", () => {
    expect(steps[4]?.proof).toEqual({ proved: true, missing: null });
    expect(steps.slice(0, 4).map(({ proof }) => proof)).toEqual([null, null, null, null]);
    const early = finished(debriefing(on, relay, [...before, fit("K5"), drive(true)], costs));
    const { proved, missing } = early.steps[1]?.proof ?? { proved: true, missing: null };
    expect(proved).toBe(false);
    // What would have proved it involves the relay.
    expect(JSON.stringify(missing)).toContain("K5");
  });

  test("counts the trips of every way", () => {
    // From the seat, then to the relay.
    expect(debrief.own.visits).toBe(2);
    expect(debrief.guess.visits).toBe(0);
    for (const way of [debrief.chart, debrief.airway]) expect(way.visits).toBeGreaterThanOrEqual(1);
  });

  test("scores the stated odds, and prices the other ways with their drives and comebacks", () => {
    expect(debrief.brier).toBeCloseTo(0.0025, 9);
    expect(debrief.own).toMatchObject({ held: true, wrong: 0 });
    for (const way of [debrief.guess, debrief.chart, debrief.airway]) {
      expect(way.fitted).toContain("K5");
      expect(way.moneyMinor).toBeGreaterThanOrEqual(
        way.wrong * costs.comebackMinor + minutesMinor(way.minutes, costs),
      );
      expect(way.minutes).toBeGreaterThanOrEqual((way.wrong + 1) * driveMinutes);
    }
    expect(debrief.guess.wrong).toBeGreaterThanOrEqual(1);
  });

  test("comes a step at a time, with the same result as at once", () => {
    const slowly = debriefing(on, relay, acts, costs);
    let count = 0;
    for (let step = slowly.next(); ; step = slowly.next()) {
      if (step.done) {
        expect(step.value).toEqual(debrief);
        break;
      }
      count += 1;
    }
    expect(count).toBe(acts.length);
  });

  test("of a case without actions says what it was, and has no score", () => {
    const none = finished(debriefing(on, relay, [{ act: "give-up", minutes: 0 }], costs));
    expect(none).toMatchObject({ brier: null, said: [], own: { held: false, fitted: [], minutes: 0 } });
    expect(none.truth).toEqual({ parts: ["K5"], fault: "K5:stuck-open" });
  });
});
