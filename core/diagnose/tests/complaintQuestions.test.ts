import { describe, expect, test } from "@jest/globals";
import { type Reading, readingSchema, testKey, testOf } from "../../predict/reading";
import { readingProblems } from "../../predict/readingProblems";
import { heard, repairIn, shippedCircuit, shippedEngine, shippedIds } from "../../testing/shippedCircuit";
import { believe, repairBelief } from "../belief/belief";
import { diagnose } from "../diagnose";
import { answerOf, type ComplaintQuestion, complaintQuestions, everyAnswer } from "./complaintQuestions";

describe.each(shippedIds)("what to ask about %s", (id) => {
  const questions = complaintQuestions(shippedCircuit(id));
  const engine = shippedEngine(id);

  test("every answer is a reading for this circuit, of the question's own test, marked as heard", () => {
    expect(new Set(questions.map((question) => question.id)).size).toBe(questions.length);
    for (const question of questions) {
      const answers = everyAnswer(question);
      expect(answers.length).toBeGreaterThan(1);
      expect(new Set(answers.map((answer) => answer.id)).size).toBe(answers.length);
      for (const { reading } of answers) {
        expect(readingSchema.parse(reading)).toEqual(reading);
        expect(readingProblems(engine, reading)).toEqual([]);
        expect(reading.heard).toBe(true);
        expect(testKey(testOf(reading))).toBe(testKey(question.test));
      }
    }
  });

  test("an answer is recognised from what was stored", () => {
    for (const question of questions)
      for (const answer of everyAnswer(question)) {
        const stored = JSON.parse(JSON.stringify(answer.reading)) as Reading;
        expect(answerOf(question, stored)?.id).toBe(answer.id);
      }
  });
});

test("a blower with a second switch is asked about in each position", () => {
  const topics = complaintQuestions(shippedCircuit("dunlin-rear-blower")).map(({ topic }) => topic);
  expect(topics.filter(({ kind }) => kind === "own-switch").length).toBeGreaterThan(0);
  expect(
    complaintQuestions(shippedCircuit("whimbrel-four-speed")).some(({ id }) => id.startsWith("S2")),
  ).toBe(false);
});

// The weight of an answer is common practice, no source; this only tests the direction in which it moves the belief.
describe("answers change the belief", () => {
  const engine = shippedEngine("whimbrel-four-speed");
  const questions = complaintQuestions(shippedCircuit("whimbrel-four-speed"));
  const answered = (question: string, answer: string): Reading => {
    const found = questions.find(({ id }) => id === question);
    const reading = found && everyAnswer(found).find(({ id }) => id === answer)?.reading;
    if (!reading) throw new Error(`${question} ${answer}`);
    return reading;
  };
  const belief = (...readings: Reading[]) => {
    const { variants } = believe(engine, readings);
    const of = (test: (family: string) => boolean): number =>
      engine.variants.reduce((sum, { family }, i) => sum + (test(family) ? (variants[i] ?? 0) : 0), 0);
    return {
      loose: of((family) => family.includes(":loose")),
      motor: repairBelief(engine, believe(engine, readings)).get(repairIn(engine, "M1")) ?? 0,
    };
  };
  const speeds = heard({ "1": "none", "2": "none", "3": "none", "4": "none" });

  test("bumps that change it point to loose contacts", () => {
    expect(belief(...speeds, answered("bumps", "yes")).loose).toBeGreaterThan(
      2 * belief(...speeds, answered("bumps", "no")).loose,
    );
  });

  test("a squeal that rises with the speed points to the motor, more than one that does not", () => {
    const running = heard({ "1": "normal", "2": "normal", "3": "normal", "4": "normal" });
    const follows = belief(...running, answered("noise", "squeal-follows")).motor;
    expect(follows).toBeGreaterThan(belief(...running, answered("noise", "squeal-apart")).motor);
    expect(follows).toBeGreaterThan(belief(...running, answered("noise", "quiet")).motor);
  });

  test("a blower that keeps blowing with the key out is not a blown fuse", () => {
    const keeps = believe(engine, [answered("key-out", "blows")]);
    const fuse = engine.variants.findIndex(({ family }) => family === "F7:blown");
    expect(keeps.variants[fuse]).toBeLessThan(engine.variants[fuse]?.prior ?? 0);
  });

  test("a blower that never stops, with the key out: the control, and nobody is called wrong", () => {
    const pwm = shippedEngine("whimbrel-pwm-low");
    const settings = pwm.netlist.circuit.settings;
    const runs: Reading[] = settings.map((setting, place) => ({
      test: "airflow",
      heard: true,
      key: "run",
      setting,
      seen: place === 0 || place < settings.length - 1 ? "strong" : "normal",
    }));
    const question = complaintQuestions(pwm.netlist.circuit).find(({ id }) => id === "key-out");
    for (const id of ["blows", "normal"]) {
      const reading: Reading =
        id === "normal"
          ? { test: "airflow", heard: true, key: "off", setting: settings.at(-1) ?? "", seen: "normal" }
          : (question?.answers.find((answer) => answer.id === id)?.reading as Reading);
      const result = diagnose(pwm, [...runs, reading]);
      if (!result.ok) throw new Error(JSON.stringify(result.problems));
      expect(result.value.conflicts).toEqual([]);
      expect(result.value.suspects[0]?.fault).toMatch(/^A\d:full-on/);
      expect(result.value.suspects[0]?.p).toBeGreaterThan(0.8);
      expect(answerOf(question as ComplaintQuestion, reading)?.id).toBe("blows");
    }
  });
});
