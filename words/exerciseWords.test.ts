import { describe, expect, test } from "@jest/globals";
import { exerciseForms, exerciseOn, lessonIds } from "../core/practice/curriculum";
import { practiceCircuit } from "../core/practice/practiceCase";
import { shippedEngine } from "../core/testing/shippedCircuit";
import { exerciseWords } from "./exerciseWords";
import { lessonWords } from "./lessonWords";

const circuits = ["whimbrel-four-speed", "dotterel-linear-high", "siskin-linear-low"].map((id) =>
  practiceCircuit(shippedEngine(id)),
);

describe.each(exerciseForms.map(({ item }) => item))("%s", (item) => {
  test("asks in whole sentences, offers answers that read differently, and says why", () => {
    let met = 0;
    for (const on of circuits)
      for (let seed = 0; seed < 12; seed++) {
        const exercise = exerciseOn(item, on, seed);
        if (!exercise) continue;
        met += 1;
        const { question, answers, why } = exerciseWords(on.exact.circuit, exercise);
        for (const words of [question, why]) {
          expect(words).not.toMatch(/undefined|NaN|null/);
          expect(words).toMatch(/^[^a-z].*[.?]$/);
        }
        expect(new Set(answers.map(({ text }) => text)).size).toBe(exercise.answers.length);
      }
    expect(met).toBeGreaterThan(0);
  });
});

test("every lesson has something to read", () => {
  for (const id of lessonIds) expect(lessonWords[id].text.join(" ").length).toBeGreaterThan(120);
});
