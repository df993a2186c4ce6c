import { benchSums, startOf, sumNamed, workSum } from "@core/sums/benchSums";
import { startsFrom } from "@core/sums/fromCircuit";
import { shippedEngine, shippedIds } from "@core/testing/shippedCircuit";
import { describe, expect, test } from "@jest/globals";
import { steppedFigure } from "./steppedFigure";
import { addressOf, askedBy } from "./sumAddress";

describe("the address of a sum", () => {
  test.each(benchSums.map((sum) => [sum.id, sum] as const))(
    "%s: gives the same input it was made from",
    (_, sum) => {
      const asked = startOf(sum);
      expect(addressOf(sum, asked).toString()).toBe("");
      for (const field of sum.fields)
        asked[field.id] =
          "quantity" in field
            ? { text: "1.5", unit: field.unit }
            : { text: "choices" in field ? (field.choices.at(-1)?.id ?? "") : "40, 60", unit: "" };
      const query = new URLSearchParams(addressOf(sum, asked).toString());
      expect(askedBy(sum, query)).toEqual(asked);
    },
  );

  test("units as typed, and text that cannot be read is left for the sum to name", () => {
    const sum = sumNamed("wire-drop");
    if (!sum) throw new Error("no such sum");
    const asked = askedBy(sum, new URLSearchParams("length=12 ft&area=14 AWG&amps=many&nothing=1"));
    expect(asked.length).toEqual({ text: "12", unit: "ft" });
    expect(asked.area).toEqual({ text: "14", unit: "awg" });
    expect(workSum(sum, asked)).toMatchObject({ ok: false, problems: [{ field: "amps" }] });
    // Text that cannot be read is returned as typed, without being split into figure and unit.
    expect(askedBy(sum, addressOf(sum, asked))).toEqual(asked);
  });
});

describe.each(shippedIds)("what the sums take from %s", (id) => {
  test("belongs to the sum's own fields, and can be worked", () => {
    const starts = startsFrom(shippedEngine(id).netlist);
    expect(starts.filter(({ sum }) => sum === "wire-drop").length).toBeGreaterThan(3);
    for (const { sum: name, asked } of starts) {
      const sum = sumNamed(name);
      if (!sum) throw new Error(`no sum ${name}`);
      for (const field of Object.keys(asked)) expect(sum.fields.map((own) => own.id)).toContain(field);
      expect(workSum(sum, { ...startOf(sum), ...asked })).toMatchObject({ ok: true });
    }
  });
});

describe("a step of the last digit", () => {
  test.each([
    ["12.5", 1, "12.6"],
    ["12.9", 1, "13.0"],
    ["2,5", -1, "2,4"],
    ["7", -1, "6"],
    ["0", -1, "-1"],
  ] as const)("%s by %p is %s", (text, by, out) => expect(steppedFigure(text, by)).toBe(out));
  test("text that is not a figure is left unchanged", () => expect(steppedFigure("3 ft", 1)).toBeNull());
});
