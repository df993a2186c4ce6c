import { describe, expect, test } from "@jest/globals";
import { shippedIds, shippedNetlist } from "../../testing/shippedCircuit";
import { currentPath } from "./currentPath";
import { carries, pathBoard } from "./pathBoard";

const van = shippedNetlist("whimbrel-four-speed");
const sorted = (...path: Parameters<typeof currentPath>): string[] => currentPath(...path).sort();

describe("the path of a cell", () => {
  test("of the pack's last element on 3 goes through fuse, relay, motor and switch, and around the other elements", () => {
    // Traced by hand on the circuit's file: G1 W1 J1 W3 F7 W4 K3 W9 M1 W10 J2 W11 R1 (link, e3) W15 S2 W16 E1.
    // The plugs its current passes are on it: X3 at the motor, X5 at the pack, X6 at the switch.
    expect(sorted(van, "3", "R1.e3")).toEqual([
      ...["E1", "F7", "K3", "M1", "R1", "S2"],
      ...["W1", "W10", "W11", "W15", "W16", "W3", "W4", "W9"],
      ...["X3", "X5", "X6"],
    ]);
  });

  test("of the relay's coil is the key's path, and does not include the motor", () => {
    const coil = currentPath(van, "3", "K3.coil");
    expect(coil).toEqual(expect.arrayContaining(["F1", "S1", "F19", "W8", "E2"]));
    expect(coil).not.toContain("M1");
    expect(coil).not.toContain("F7");
  });

  test("of the top speed leaves the pack out", () => {
    expect(currentPath(van, "4", "M1")).not.toContain("R1");
    expect(currentPath(van, "2", "M1")).toContain("R1");
  });

  test("is empty for a piece that carries no current or does not exist", () => {
    expect(currentPath(van, "off", "M1")).toEqual([]);
    expect(currentPath(van, "4", "R1.e1")).toEqual([]);
    expect(currentPath(van, "4", "Q9")).toEqual([]);
  });
});

test.each(shippedIds)("%s: every cell's path leads from feed to ground through its own part", (id) => {
  const netlist = shippedNetlist(id);
  const { settings, parts } = netlist.circuit;
  const grounds = parts.flatMap((part) => (part.kind === "ground" ? [part.id] : []));
  for (const row of pathBoard(netlist)) {
    settings.forEach((setting, index) => {
      const path = currentPath(netlist, setting, row.id);
      expect({ setting, id: row.id, has: path.includes(row.part) }).toMatchObject({
        has: carries(row, index),
      });
      if (!carries(row, index)) return;
      const ends = grounds.some((ground) => path.includes(ground));
      const fed = path.some((own) =>
        netlist.circuit.wires.some(
          ({ id: wire, from, to }) => wire === own && [from, to].includes(`${netlist.battery.id}.+`),
        ),
      );
      expect({ setting, id: row.id, ends, fed }).toMatchObject({ ends: true, fed: true });
    });
  }
});
