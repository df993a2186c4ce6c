import type { Circuit, Wire } from "../circuit/circuit";
import { parseCircuit } from "../circuit/parseCircuit";
import { writtenColour, writtenMetres, writtenMm2 } from "../circuit/writtenWire";
import { type Parsed, type Problem, quoted, refused } from "../problem/problem";
import { typedFigure } from "../units/typedFigure";

/** Columns of a wire list, in the order they are written. */
export const wireListColumns = [
  "wire",
  "from",
  "to",
  "colour",
  "mm2",
  "metres",
  "fromOhms",
  "toOhms",
  "colourName",
] as const;
type Column = (typeof wireListColumns)[number];
const needed: readonly Column[] = ["wire", "from", "to", "colour", "mm2", "metres"];

/** A wire list as rows of text, the heading first. */
export function wireList({ wires }: Circuit): string[][] {
  return [
    [...wireListColumns],
    ...wires.map(({ id, from, to, colour, mm2, metres, fromOhms, toOhms, colourName }) =>
      [id, from, to, colour, mm2, metres, fromOhms ?? "", toOhms ?? "", colourName ?? ""].map(String),
    ),
  ];
}

const orNull = (value: number): number | null => (Number.isNaN(value) ? null : value);

/** A figure as typed in a list; null if it is not one. */
const figure = (text: string): number | null => orNull(typedFigure(text));

/**
 * A circuit with its wires replaced by those of a list: rows of text, the heading first, columns in any order.
 * Refused, with row and column, if a row is not a wire or does not fit the circuit.
 */
export function withWireList(circuit: Circuit, rows: readonly (readonly string[])[]): Parsed<Circuit> {
  const [heading = [], ...body] = rows;
  const at = new Map(heading.map((name, index) => [name.trim(), index]));
  const missing = needed.filter((column) => !at.has(column));
  if (missing.length > 0)
    return refused([
      {
        code: "no-such-thing",
        path: "row 1",
        message: `no column ${missing.map(quoted).join(", ")}; expected ${wireListColumns.join(", ")}`,
      },
    ]);
  const problems: Problem[] = [];
  const wires = body.flatMap((row, index): Wire[] => {
    if (row.every((cell) => cell.trim() === "")) return [];
    const place = (column: Column): string => `row ${index + 2}, ${column}`;
    const cell = (column: Column): string => (row[at.get(column) ?? -1] ?? "").trim();
    const number = (column: Column, read = figure): number => {
      const value = read(cell(column));
      if (value === null)
        problems.push({
          code: "wrong-value",
          path: place(column),
          message: `expected a number, got ${quoted(cell(column))}`,
        });
      return value ?? Number.NaN;
    };
    const optional = (column: Column) => (cell(column) === "" ? {} : { [column]: number(column) });
    return [
      {
        id: cell("wire"),
        from: cell("from"),
        to: cell("to"),
        colour: cell("colour"),
        ...(cell("colourName") ? { colourName: cell("colourName") } : writtenColour(cell("colour"))),
        mm2: number("mm2", (text) => orNull(writtenMm2(text))),
        metres: number("metres", (text) => orNull(writtenMetres(text))),
        ...optional("fromOhms"),
        ...optional("toOhms"),
      },
    ];
  });
  if (problems.length > 0) return refused(problems);
  const parsed = parseCircuit({ ...circuit, wires });
  if (parsed.ok) return parsed;
  // Empty rows do not count: a wire's index in the circuit is its row after the heading.
  const rowOf = body.flatMap((row, index) => (row.every((cell) => cell.trim() === "") ? [] : [index + 2]));
  return refused(
    parsed.problems.map(({ code, path, message }) => {
      const [list, wire, key] = path.split(".");
      if (list !== "wires") return { code, path, message };
      return {
        code,
        path: `row ${rowOf[Number(wire)] ?? "?"}${key ? `, ${key === "id" ? "wire" : key}` : ""}`,
        message,
      };
    }),
  );
}
