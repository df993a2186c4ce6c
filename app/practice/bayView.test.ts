import type { PracticeAct } from "@core/practice/practiceBay";
import { practiceCircuit } from "@core/practice/practiceCase";
import type { Reading } from "@core/predict/reading";
import { shippedEngine } from "@core/testing/shippedCircuit";
import { describe, expect, test } from "@jest/globals";
import { actWords, customerSays } from "./bayView.server";
import { progressCsv } from "./progressCsv";

const on = practiceCircuit(shippedEngine("whimbrel-four-speed"));

describe("what was done, in words", () => {
  test.each<[PracticeAct, string, string]>([
    [{ act: "open", place: "under-dash", minutes: 4 }, "Opened under dash", ""],
    [{ act: "ask", look: null, minutes: 5 }, "Asked Airway", "no test left that is worth its time"],
    [
      { act: "ask", look: { test: "smell", key: "run", setting: "4" }, minutes: 5 },
      "Asked Airway",
      "smell at the vent, key run, speed 4",
    ],
    [
      { act: "fit", parts: ["M1", "R1"], odds: 0.85, opened: [], minutes: 45, priceMinor: 13_000 },
      "Fitted blower motor M1 and resistor pack R1",
      "85 % sure",
    ],
    [{ act: "drive", held: true, minutes: 5, costMinor: 0, complaint: [] }, "Handed over", "it held"],
    [{ act: "drive", held: false, minutes: 5, costMinor: 9, complaint: [] }, "Handed over", "it came back"],
    [{ act: "give-up", minutes: 0 }, "Gave up", ""],
    [
      {
        act: "look",
        reading: { test: "volts", red: "X5:1", black: "G1.-", key: "run", setting: "2", volts: 12.34 },
        minutes: 0.7,
      },
      "volts, red on resistor plug, pin 1, green wire (X5:1), black on battery negative, key run, speed 2",
      "12.3 V",
    ],
    [
      {
        act: "look",
        reading: { test: "ohms", red: "R1.T1", black: "R1.T4", setting: "2", unplugged: ["X5"], ohms: null },
        minutes: 1.5,
      },
      "ohms from resistor pack, terminal T1, green wire (R1.T1) to resistor pack, terminal T4, violet wire (R1.T4), key off, speed 2, resistor plug X5 unplugged",
      "OL (open)",
    ],
  ])("%j", (act, what, came) => expect(actWords(on, act)).toEqual({ what, came }));
});

describe("what the customer says", () => {
  const settings = ["off", "low", "high"];
  const air = (setting: string, seen: "none" | "weak" | "normal" | "strong", more: object = {}): Reading => ({
    test: "airflow",
    heard: true,
    key: "run",
    setting,
    seen,
    ...more,
  });

  test.each<[string, Reading[], string]>([
    ["weak on all", [air("low", "weak"), air("high", "weak")], "Weak on every speed."],
    ["one dead", [air("low", "none"), air("high", "normal")], "Nothing on low, normal on high."],
    ["too strong below", [air("low", "strong"), air("high", "normal")], "Too strong on low, normal on high."],
    [
      "never stops",
      [
        air("off", "weak"),
        air("low", "normal"),
        air("high", "normal"),
        air("high", "normal", { key: "off" }),
      ],
      "It blows on every speed. It keeps blowing when switched off. It blows even with the key out.",
    ],
    [
      "a noise",
      [
        air("low", "normal"),
        air("high", "normal"),
        { test: "listen", heard: true, key: "run", setting: "high", seen: "squeal", followsSpeed: true },
      ],
      "It blows on every speed. There is a squeal.",
    ],
    [
      "a second blower",
      [
        air("low", "normal"),
        air("high", "normal"),
        air("off", "none", { selectors: { S3: "low" }, at: "M2" }),
      ],
      "It blows on every speed. The other blower: nothing on low.",
    ],
  ])("%s", (_, complaint, says) => expect(customerSays(settings, complaint)).toBe(says));
});

describe("progress as CSV", () => {
  const csv = progressCsv({
    learner: "apprentice 1",
    lessons: [
      {
        id: "paths",
        title: "What each speed proves",
        done: true,
        answered: 4,
        right: 3,
        due: [],
        next: null,
      },
      { id: "light", title: "The light", done: false, answered: 0, right: 0, due: [], next: null },
      { id: "drop", title: 'Drop, "under load"', done: false, answered: 2, right: 1, due: [], next: null },
    ],
    cases: [
      {
        id: "x",
        title: "@home",
        level: "hard",
        began: "24 Nov 2026, 10:00",
        over: null,
        minutes: "5 min",
        money: "7.50",
        comebacks: 1,
      },
    ],
  });
  const lines = csv.split("\r\n");

  test("has a line for each under its header, with states in words", () => {
    expect(lines).toHaveLength(5);
    expect(lines[0]).toBe("learner,what,title,state,right,asked,began,minutes,money,comebacks");
    expect(lines[1]).toBe("apprentice 1,lesson,What each speed proves,done,3,4,,,,");
    expect(lines[2]).toContain(",new,0,0");
    expect(lines[3]).toContain(",begun,1,2");
  });

  test("quotes where needed (RFC 4180), and no spreadsheet takes a title for a formula", () => {
    expect(lines[3]).toContain('"Drop, ""under load"""');
    expect(lines[4]).toContain(",'@home,standing,");
    expect(lines[4]).toContain('"24 Nov 2026, 10:00"');
  });
});
