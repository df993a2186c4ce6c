import { describe, expect, test } from "@jest/globals";
import { problemText } from "../problem/problem";
import { shippedNetlist } from "../testing/shippedCircuit";
import { catalogue } from "./catalogue";
import { faultFromId } from "./fault";
import { faultId, parseFaultId } from "./faultId";

const netlist = shippedNetlist("whimbrel-four-speed");

describe("fault ids", () => {
  test.each([
    "X5:1:open",
    "W9/from:high@1.5",
    "M1:tight@1.6+R1.link:open",
    "CAR:filter-blocked@0.5",
    "K3.87:high@0.3",
  ])("%s is read and written back", (text) => {
    const parsed = parseFaultId(text);
    expect(parsed.ok && faultId(parsed.value)).toBe(text);
    expect(faultFromId(netlist, text).ok).toBe(true);
  });

  test.each([
    ["nonsense", /expected WHERE:mode/],
    ["X5:1:", /expected WHERE:mode/],
    ["W9:high@-1", /a value above 0/],
    ["W9:high", /needs its ohms/],
    ["W99:open", /no fault "W99:open" in this circuit/],
    ["M1:sings", /no fault "M1:sings"/],
    ["M1:tight@0.5", /how many times the rated amps/],
    ["R1.e1:to-ground", /no fault/],
  ])("%s is refused", (text, message) => {
    const placed = faultFromId(netlist, text);
    expect(placed.ok ? "accepted" : placed.problems.map(problemText).join()).toMatch(message);
  });

  test("every entry of the catalogue can be written, read back and placed, and the priors leave room for the unknown", () => {
    const entries = catalogue(netlist);
    for (const { id, fault } of entries) {
      const placed = faultFromId(netlist, id);
      expect(placed.ok && placed.value.changes).toEqual(fault.changes);
    }
    expect(new Set(entries.map(({ id }) => id)).size).toBe(entries.length);
    expect(entries.reduce((sum, { prior }) => sum + prior, 0)).toBeCloseTo(0.99, 9);
  });

  test("faults come from every part, pin and wire of the circuit", () => {
    const parts = new Set(catalogue(netlist).flatMap(({ fault }) => fault.parts));
    const { circuit } = netlist;
    const things = [
      ...circuit.parts.filter(({ kind }) => kind !== "splice"),
      ...circuit.connectors,
      ...circuit.wires,
    ];
    expect(things.filter(({ id }) => !parts.has(id)).map(({ id }) => id)).toEqual([]);
  });

  test("a short to ground is paired with the fuse that feeds that wire, and a seized motor with its own", () => {
    const ids = catalogue(netlist).map(({ id }) => id);
    expect(ids).toContain("W9:to-ground+F7:blown");
    expect(ids).toContain("W7:to-ground+F19:blown");
    expect(ids).toContain("M1:seized+F7:blown");
    expect(ids).not.toContain("W7:to-ground+F7:blown");
  });
});
