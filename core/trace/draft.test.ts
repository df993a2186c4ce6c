import { describe, expect, test } from "@jest/globals";
import { type DraftStep, draftState, draftStepSchema, parseAnswer } from "./draft";
import { traceFamilies } from "./family";
import { traceQuestionIds, usualAnswers } from "./traceAnswer";

const name = { id: "wagon", title: "Wagon" };
const nothing = { kind: "trace", answers: {} } as const;
const answer = (question: (typeof traceQuestionIds)[number], value: unknown): DraftStep => ({
  step: "answer",
  question,
  answer: value,
});
const edit = (id: string, mm2: number): DraftStep => ({
  step: "edit",
  edit: { do: "set", list: "wires", id, key: "mm2", value: mm2 },
});

function stateOf(steps: readonly DraftStep[]) {
  const state = draftState(nothing, name, steps);
  if (!state.ok) throw new Error(JSON.stringify(state.problems));
  return state.value;
}

describe("a draft", () => {
  test("is its steps: undoing the last gives the previous circuit", () => {
    const steps = [answer("speeds", 3), edit("W1", 16), answer("hands", "feed"), edit("W2", 2.5)];
    for (let count = 1; count <= steps.length; count++) {
      const before = stateOf(steps.slice(0, count - 1));
      const after = stateOf(steps.slice(0, count));
      expect(after).not.toEqual(before);
      expect(stateOf(steps.slice(0, count - 1))).toEqual(before);
    }
  });

  test("keeps changes made in a table when an answer changes the circuit, and reports those that no longer fit", () => {
    const six = stateOf([answer("speeds", 6), edit("W1", 16), edit("W17", 2)]);
    expect(six.dropped).toEqual([]);
    const two = stateOf([answer("speeds", 6), edit("W1", 16), edit("W17", 2), answer("speeds", 2)]);
    expect(two.circuit.wires.find(({ id }) => id === "W1")?.mm2).toBe(16);
    expect(two.dropped).toMatchObject([{ edit: { id: "W17" }, problem: { message: "there is no W17" } }]);
    // With the answer undone, the change is there again.
    expect(stateOf([answer("speeds", 6), edit("W1", 16), edit("W17", 2)])).toEqual(six);
  });

  test("an answer of the wrong kind is refused by its place", () => {
    expect(parseAnswer("speeds", "many")).toMatchObject({ ok: false });
    expect(parseAnswer("fuse", { id: 31, amps: 30 })).toMatchObject({
      ok: false,
      problems: [{ code: "wrong-value", path: "id" }],
    });
    expect(parseAnswer("command", { still: 4, full: 4 })).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("the two volts must differ") }],
    });
    expect(parseAnswer("motor", null)).toEqual({ ok: true, value: null });
    expect(draftState(nothing, name, [answer("speeds", 99)])).toMatchObject({ ok: false });
    expect(draftState(nothing, name, [answer("fuse", { id: "K1", amps: 30 })])).toEqual({
      ok: false,
      problems: [{ code: "duplicate", path: "", message: "K1 cannot be the name of two things" }],
    });
  });

  test("steps read back as they were stored", () => {
    const steps = [
      answer("fuse", { id: "F9", amps: 30 }),
      edit("W1", 16),
      {
        step: "edit",
        edit: { do: "add", list: "parts", item: { id: "J9", kind: "splice" } },
      } as const,
      { step: "edit", edit: { do: "wires", wires: [] } } as const,
    ];
    for (const step of steps) expect(draftStepSchema.parse(JSON.parse(JSON.stringify(step)))).toEqual(step);
    expect(
      draftStepSchema.safeParse({ step: "edit", edit: { do: "add", list: "wires", item: {} } }).success,
    ).toBe(false);
  });

  test("every usual answer is accepted by its question", () => {
    for (const id of traceQuestionIds) expect(parseAnswer(id, usualAnswers[id]).ok).toBe(true);
  });

  test.each(traceFamilies.map((family) => [family.words, family] as const))(
    "%s starts a draft",
    (_, family) => {
      const state = draftState({ kind: "trace", answers: family.answers }, name, []);
      expect(state).toMatchObject({ ok: true, value: { answers: family.answers, dropped: [] } });
    },
  );

  test("started from another vehicle it takes its own name, and no questions", () => {
    const { circuit } = stateOf([answer("speeds", 5)]);
    const state = draftState(
      { kind: "circuit", circuit },
      { id: "other", title: "Other", steering: "right" },
      [edit("W1", 25)],
    );
    expect(state).toMatchObject({
      ok: true,
      value: { answers: null, circuit: { id: "other", title: "Other", steering: "right" } },
    });
  });
});
