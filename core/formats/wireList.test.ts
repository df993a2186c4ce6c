import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { problemText } from "../problem/problem";
import { shippedCircuit, shippedIds } from "../testing/shippedCircuit";
import { wireList, withWireList } from "./wireList";

const van = shippedCircuit("whimbrel-four-speed");
const problems = (rows: string[][]): string[] => {
  const read = withWireList(van, rows);
  return read.ok ? [] : read.problems.map(problemText);
};

test.each(shippedIds)("%s: written and read again it is the same circuit", (id) => {
  const circuit = shippedCircuit(id);
  expect(withWireList(circuit, wireList(circuit))).toEqual({ ok: true, value: circuit });
});

describe("a list from elsewhere", () => {
  test("may have its columns in any order, empty rows and decimal commas", () => {
    const [heading = [], ...rows] = wireList(van);
    const turned = [heading, ["", ""], ...rows].map((row) => [...row].reverse());
    const commas = turned.map((row, index) =>
      index === 0 ? row : row.map((cell) => cell.replace(".", cell.match(/^\d/) ? "," : ".")),
    );
    expect(withWireList(van, commas)).toEqual({ ok: true, value: van });
  });

  test("is refused by row and column", () => {
    const rows = wireList(van);
    const spoilt = (row: number, column: number, text: string) =>
      rows.map((own, i) => (i === row ? own.map((cell, j) => (j === column ? text : cell)) : own));
    expect(problems([["wire", "from"]])[0]).toMatch(/^row 1: no column "to", "colour", "mm2", "metres"/);
    expect(problems(spoilt(3, 4, "thick"))).toEqual(['row 4, mm2: expected a number, got "thick"']);
    expect(problems(spoilt(2, 1, "Q9.in"))[0]).toMatch(/^row 3, from: .*Q9/);
    expect(problems(spoilt(2, 3, "plaid"))[0]).toMatch(/^row 3, colour: /);
    expect(problems(spoilt(5, 0, "W1"))[0]).toMatch(/^row 6, wire: duplicate id "W1"/);
    expect(problems([])[0]).toMatch(/^row 1: no column/);
  });

  test("never throws, whatever is in it", () => {
    const cell = fc.oneof(
      fc.string({ maxLength: 12 }),
      fc.constantFrom("", "W1", "G1.+", "1e999", "RD", "-1"),
    );
    fc.assert(
      fc.property(fc.array(fc.array(cell, { maxLength: 9 }), { maxLength: 12 }), (rows) => {
        for (const read of [withWireList(van, rows), withWireList(van, [wireList(van)[0] ?? [], ...rows])])
          if (!read.ok) expect(read.problems.length).toBeGreaterThan(0);
      }),
      { numRuns: 300, seed: 11 },
    );
  });
});
