import { describe, expect, test } from "@jest/globals";
import { operatingPoint } from "../../solve/operatingPoint";
import { heard, shippedIds, shippedNetlist } from "../../testing/shippedCircuit";
import { carries, pathBoard, sharedByDead, speedWords } from "./pathBoard";

const netlist = shippedNetlist("whimbrel-four-speed");
const board = pathBoard(netlist);
const { settings } = netlist.circuit;
const carriedIn = (setting: string): string[] =>
  board.filter((row) => carries(row, settings.indexOf(setting))).map(({ id }) => id);

describe("the path board of a four-speed pack on the ground side", () => {
  // As on the diagram: each lower speed goes through one more element.
  test.each([
    ["1", ["R1.e1", "R1.e2", "R1.e3", "R1.link"]],
    ["2", ["R1.e2", "R1.e3", "R1.link"]],
    ["3", ["R1.e3", "R1.link"]],
    ["4", []],
  ])("on %s the current goes through %j of the pack", (setting, elements) => {
    expect(carriedIn(setting).filter((id) => id.startsWith("R1."))).toEqual(elements);
    for (const always of ["F7", "K3", "M1", "S2"]) expect(carriedIn(setting)).toContain(always);
  });

  test("at off only the relay's own circuit may carry current", () => {
    expect(carriedIn("off")).not.toContain("M1");
    expect(carriedIn("off")).not.toContain("F7");
  });

  test("the coil has a row of its own, the battery and splices none", () => {
    expect(board.map(({ id }) => id)).toEqual(expect.arrayContaining(["K3.coil", "K3"]));
    expect(board.some(({ part }) => part === netlist.battery.id)).toBe(false);
    const coil = board.find(({ id }) => id === "K3.coil");
    expect(Math.max(...(coil?.amps ?? []))).toBeLessThan(0.2);
  });
});

describe.each(shippedIds)("the board of %s", (id) => {
  const own = shippedNetlist(id);
  const rows = pathBoard(own);

  test("agrees with the operating point for every motor, fuse and element", () => {
    own.circuit.settings.forEach((setting, index) => {
      const point = operatingPoint(own, { key: "run", setting });
      for (const row of rows) {
        const amps = point.amps[row.id];
        if (amps !== undefined && !row.id.endsWith(".coil"))
          expect(row.amps[index]).toBeCloseTo(Math.abs(amps), 6);
      }
    });
  });

  test("lists each row once, and every part that ever carries current", () => {
    expect(new Set(rows.map((row) => row.id)).size).toBe(rows.length);
    for (const { part } of own.motors)
      if (own.motors.length === 1) expect(rows.map((row) => row.id)).toContain(part.id);
  });
});

describe("what all dead speeds share", () => {
  const shared = (speeds: Record<string, "none" | "weak" | "normal">): string[] =>
    sharedByDead(board, settings, speedWords(heard(speeds)));

  test.each<[string, Record<string, "none" | "weak" | "normal">, string[]]>([
    ["only the top blows", { "1": "none", "2": "none", "3": "none", "4": "normal" }, ["R1.e3", "R1.link"]],
    ["only the lowest is dead", { "1": "none", "2": "normal", "3": "normal", "4": "normal" }, ["R1.e1"]],
    ["nothing is dead", { "1": "weak", "4": "normal" }, []],
    ["nothing was said", {}, []],
  ])("%s: %j", (_, speeds, ids) => expect(shared(speeds)).toEqual(ids));

  test("all dead: the whole way", () => {
    expect(shared({ "1": "none", "2": "none", "3": "none", "4": "none" })).toEqual(
      expect.arrayContaining(["F7", "K3", "M1", "S2"]),
    );
  });

  test("off is not a dead speed, and the last word on a speed counts", () => {
    expect(shared({ off: "none" })).toEqual([]);
    const words = speedWords([...heard({ "1": "none" }), ...heard({ "1": "normal" })]);
    expect(words.get("1")).toBe("normal");
    // A second switch is read with the main one off, which says nothing about off.
    const rear = {
      test: "airflow",
      key: "run",
      setting: "off",
      selectors: { S4: "low" },
      seen: "weak",
    } as const;
    expect(speedWords([...heard({ off: "none" }), rear]).get("off")).toBe("none");
  });
});
