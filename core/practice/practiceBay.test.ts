import { describe, expect, test } from "@jest/globals";
import { defaultStoppingCosts, minutesMinor } from "../money/stoppingCosts";
import { finished } from "../testing/finished";
import { shippedEngine } from "../testing/shippedCircuit";
import { debriefing, saidOf } from "./debrief";
import { askMinutes, type PracticeAct, PracticeBay, scoreOf, stretchesOf } from "./practiceBay";
import { complaintOf, faultOf, type PracticeCase, practiceCircuit } from "./practiceCase";

const on = practiceCircuit(shippedEngine("whimbrel-four-speed"));
const costs = defaultStoppingCosts;

function caseOf(fault: PracticeCase["fault"], more: Partial<PracticeCase> = {}): PracticeCase {
  const own = { level: "first" as const, kind: "single" as const, fault, seed: 11, ...more };
  const placed = faultOf(on.exact, own);
  if (!placed.ok) throw new Error("no such fault");
  return { ...own, complaint: complaintOf(on.exact, own, placed.value, 0) };
}

const openLink = caseOf([{ where: "R1.link", mode: "open", value: null }]);
const tightAndLink = caseOf(
  [
    { where: "M1", mode: "tight", value: 1.3 },
    { where: "R1.link", mode: "open", value: null },
  ],
  { kind: "cause" },
);

/** Does one action after another; throws if one is refused. */
function done(
  own: PracticeCase,
  ...steps: ((bay: PracticeBay) => ReturnType<PracticeBay["drive"]>)[]
): PracticeAct[] {
  const acts: PracticeAct[] = [];
  for (const step of steps) {
    const acted = step(new PracticeBay(on, own, acts, costs));
    if (!acted.ok) throw new Error(acted.why);
    acts.push(acted.act);
  }
  return acts;
}

const lightAtPack = { test: "light", probe: "X5:1", clip: "G1.+", key: "run", setting: "2" } as const;

describe("the bay", () => {
  test("what is covered cannot be probed until it is open, which takes its minutes once", () => {
    const bay = new PracticeBay(on, openLink, [], costs);
    expect(bay.look(lightAtPack)).toMatchObject({ ok: false, why: expect.stringContaining("under dash") });
    const opened = done(openLink, (own) => own.open("under-dash"));
    expect(new PracticeBay(on, openLink, opened, costs).open("under-dash")).toMatchObject({ ok: false });
    const looked = new PracticeBay(on, openLink, opened, costs).look(lightAtPack);
    expect(looked).toMatchObject({ ok: true, act: { act: "look", minutes: 0.5 } });
  });

  test("a test taken twice at the same moment gives the same; the action alone holds the result", () => {
    const opened = done(openLink, (own) => own.open("under-dash"));
    const once = new PracticeBay(on, openLink, opened, costs).look(lightAtPack);
    expect(new PracticeBay(on, openLink, opened, costs).look(lightAtPack)).toEqual(once);
  });

  test("an open link leaves the pack's speeds dead and the top one working, by ground through the motor", () => {
    const acts = done(
      openLink,
      (bay) => bay.look({ test: "airflow", key: "run", setting: "2" }),
      (bay) => bay.look({ test: "airflow", key: "run", setting: "4" }),
    );
    expect(
      acts.map((act) => (act.act === "look" && act.reading.test === "airflow" ? act.reading.seen : null)),
    ).toEqual(["none", "normal"]);
  });

  test("the right part holds; the clock and the money add up", () => {
    const acts = done(
      openLink,
      (bay) => bay.ask(),
      (bay) => bay.fit(["R1"], 0.9),
      (bay) => bay.drive(),
    );
    const end = scoreOf(openLink, acts, costs);
    expect(end).toMatchObject({ over: "held", comebacks: 0, fitted: ["R1"] });
    const under = on.compiled.netlist.circuit.places.find(({ parts }) => parts.includes("R1"))?.minutes ?? 0;
    // By hand: asking 5, a pack's 15 minutes and its access, 5 for the drive.
    expect(end.minutes).toBeCloseTo(askMinutes + 15 + under + 5, 9);
    expect(end.moneyMinor).toBe(3500 + minutesMinor(end.minutes, costs));
    // What was opened to fit it stays open until it is reassembled for the drive.
    expect(scoreOf(openLink, acts.slice(0, 2), costs).open).toEqual(new Set(["under-dash"]));
    expect(end.open.size).toBe(0);
    expect(new PracticeBay(on, openLink, acts, costs).ask()).toMatchObject({ ok: false });
  });

  test("the wrong part comes back and costs a comeback; the right one then still holds", () => {
    const acts = done(
      openLink,
      (bay) => bay.fit(["M1"], 0.6),
      (bay) => bay.drive(),
    );
    expect(acts[1]).toMatchObject({ act: "drive", held: false, costMinor: costs.comebackMinor });
    const [, drive] = acts;
    expect(drive?.act === "drive" && drive.complaint.length).toBeGreaterThan(3);
    const held = done(
      openLink,
      (bay) => bay.fit(["M1"], 0.6),
      (bay) => bay.drive(),
      (bay) => bay.fit(["R1"], 0.95),
      (bay) => bay.drive(),
    );
    expect(scoreOf(openLink, held, costs)).toMatchObject({ over: "held", comebacks: 1 });
  });

  test("a new pack on a motor that stays tight works, comes back, and is dead again", () => {
    const acts = done(
      tightAndLink,
      (bay) => bay.fit(["R1"], 0.9),
      (bay) => bay.look({ test: "airflow", key: "run", setting: "3" }),
      (bay) => bay.drive(),
      (bay) => bay.look({ test: "airflow", key: "run", setting: "3" }),
    );
    const seen = acts.flatMap((act) =>
      act.act === "look" && act.reading.test === "airflow" ? [act.reading.seen] : [],
    );
    expect(seen[0]).not.toBe("none");
    expect(seen[1]).toBe("none");
    // Then the motor alone no longer cures it: the pack failed again on the drive.
    const motor = done(
      tightAndLink,
      (bay) => bay.fit(["R1"], 0.9),
      (bay) => bay.drive(),
      (bay) => bay.fit(["M1"], 0.8),
      (bay) => bay.drive(),
    );
    expect(scoreOf(tightAndLink, motor, costs)).toMatchObject({ over: null, comebacks: 2 });
    expect(saidOf(motor, ["M1", "R1"]).map(({ right }) => right)).toEqual([false, false]);
    const both = done(
      tightAndLink,
      (bay) => bay.fit(["R1"], 0.9),
      (bay) => bay.drive(),
      (bay) => bay.fit(["M1", "R1"], 0.9),
      (bay) => bay.drive(),
    );
    expect(scoreOf(tightAndLink, both, costs).over).toBe("held");
  });

  test("nothing fitted is not test driven, odds are required, and unknown parts are refused", () => {
    const bay = new PracticeBay(on, openLink, [], costs);
    expect(bay.drive().ok).toBe(false);
    expect(bay.fit(["R1"], 1).ok).toBe(false);
    expect(bay.fit(["R99"], 0.5).ok).toBe(false);
    expect(bay.fit([], 0.5).ok).toBe(false);
    expect(bay.open("attic").ok).toBe(false);
    expect(bay.look({ test: "light", probe: "X99:1", clip: "G1.+", key: "run", setting: "2" }).ok).toBe(
      false,
    );
  });
});

describe("the evidence of a case", () => {
  test("a repair that did not cure it shows in the next test, one that did ends the case", () => {
    const acts = done(
      openLink,
      (bay) => bay.fit(["M1"], 0.6),
      (bay) => bay.look({ test: "airflow", key: "run", setting: "2" }),
      (bay) => bay.fit(["R1"], 0.9),
      (bay) => bay.look({ test: "airflow", key: "run", setting: "2" }),
    );
    const { readings, repairs } = stretchesOf(openLink, acts, ["R1"]);
    expect(repairs).toEqual([{ after: openLink.complaint.length, parts: ["M1"] }]);
    expect(readings.length).toBe(openLink.complaint.length + 1);
  });
});

describe("the debrief", () => {
  const acts = done(
    openLink,
    (bay) => bay.look({ test: "smell", key: "run", setting: "4" }),
    (bay) => bay.open("under-dash"),
    (bay) => bay.look(lightAtPack),
    (bay) => bay.fit(["M1"], 0.8),
    (bay) => bay.drive(),
    (bay) => bay.fit(["R1"], 0.9),
    (bay) => bay.drive(),
  );
  const debrief = finished(debriefing(on, openLink, acts, costs));

  test("says what it was, and shows each test next to the one that would have told most", () => {
    expect(debrief.truth).toEqual({ parts: ["R1"], fault: "R1.link:open" });
    const looks = debrief.steps.filter(({ own }) => own !== null);
    expect(looks).toHaveLength(2);
    for (const { own, best, lost } of looks) {
      expect(own?.bits).toBeGreaterThanOrEqual(0);
      expect(best?.rate).toBeGreaterThan(0);
      expect(lost).toBeCloseTo(Math.max(0, (best?.rate ?? 0) - (own?.rate ?? 0)), 12);
    }
    // Smelling at a working vent tells almost nothing about a dead pack.
    expect(looks[0]?.lost).toBeGreaterThan(0.5 * (looks[0]?.best?.rate ?? 1));
  });

  test("belief and stated odds differ at the motor, and the guess costs a comeback", () => {
    const fits = debrief.steps.filter(({ engineOdds }) => engineOdds !== null);
    expect(fits[0]?.engineOdds).toBeLessThan(0.2);
    expect(fits[1]?.engineOdds).toBeGreaterThan(0.5);
    expect(debrief.said).toEqual([
      { p: 0.8, right: false },
      { p: 0.9, right: true },
    ]);
    // By hand: (0.8² + 0.1²) / 2.
    expect(debrief.brier).toBeCloseTo(0.325, 9);
    expect(debrief.own).toMatchObject({ wrong: 1, held: true, fitted: ["M1", "R1"] });
  });

  test("the other ways end with the right part, and Airway costs no more than guessing wrong once", () => {
    for (const way of [debrief.guess, debrief.chart, debrief.airway]) expect(way.fitted).toContain("R1");
    expect(debrief.airway.moneyMinor).toBeLessThan(debrief.own.moneyMinor);
    expect(saidOf(acts, ["R1"]).map(({ right }) => right)).toEqual([false, true]);
    // If the pack had caused the motor's failure, the new motor would have failed on the drive.
    expect(saidOf(acts, ["R1", "M1"]).map(({ right }) => right)).toEqual([false, false]);
  });
});
