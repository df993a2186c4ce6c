import { describe, expect, test } from "@jest/globals";
import { setupState } from "../solve/netlist/setup";
import { nominalValues } from "../solve/netlist/values";
import { PointSolver } from "../solve/pointSolver";
import { shippedIds, shippedNetlist } from "../testing/shippedCircuit";
import { catalogue, changesAt } from "./catalogue";

describe.each(shippedIds)("the catalogue of %s", (id) => {
  const netlist = shippedNetlist(id);
  const entries = catalogue(netlist);

  test("tries a continuous fault in adjoining bands without holes", () => {
    const families = new Map<string, { low: number; high: number }[]>();
    for (const { fault, bands, family } of entries) {
      if (fault.names.length !== 1) continue;
      const [band] = bands;
      if (band) families.set(family, [...(families.get(family) ?? []), band]);
    }
    expect(families.size).toBeGreaterThan(10);
    for (const [family, bands] of families) {
      const sorted = [...bands].sort((a, b) => a.low - b.low);
      for (const [i, band] of sorted.entries()) {
        expect(band.high).toBeGreaterThan(band.low);
        if (i > 0) expect({ family, low: band.low }).toEqual({ family, low: sorted[i - 1]?.high });
      }
    }
  });

  test("names a band by a size inside it, and places it at any other size on the same branch", () => {
    for (const entry of entries) {
      for (const [i, band] of entry.bands.entries()) {
        if (!band) continue;
        const size = entry.fault.names[i]?.value ?? 0;
        expect(size).toBeGreaterThan(band.low);
        expect(size).toBeLessThan(band.high);
      }
      const ends = [0, 1].map((share) => changesAt(netlist, entry, share));
      expect(ends.map((changes) => changes.map(({ type }) => type))).toEqual([
        entry.fault.changes.map(({ type }) => type),
        entry.fault.changes.map(({ type }) => type),
      ]);
    }
  });

  test("pairs a tight motor only with elements and pins that carry at least half its current in some setting", () => {
    const solver = new PointSolver(netlist);
    const values = nominalValues(netlist);
    const share = (branch: number, motor: number): number =>
      Math.max(
        0,
        ...positions(netlist).map((setup) => {
          const { amps } = solver.solve(values, setupState(netlist, setup), []);
          const own = Math.abs(amps[motor] ?? 0);
          return own < 0.5 ? 0 : Math.abs(amps[branch] ?? 0) / own;
        }),
      );
    const pairs = entries.filter(({ fault }) => fault.names[0]?.mode === "tight" && fault.names.length === 2);
    expect(pairs.length).toBeGreaterThan(0);
    const met = new Set<string>();
    for (const { fault } of pairs) {
      const [cause, victim] = fault.names;
      if (!cause || !victim || victim.mode === "blown" || victim.mode === "dead") continue;
      const key = `${cause.where} ${victim.where}`;
      if (met.has(key)) continue;
      met.add(key);
      const motor = netlist.motors.find(({ part }) => part.id === cause.where)?.branch ?? -1;
      expect(share(netlist.branchOf.get(victim.where) ?? -1, motor)).toBeGreaterThanOrEqual(0.5);
    }
  });
});

/** Every position of every switch, key on. */
function positions(netlist: ReturnType<typeof shippedNetlist>) {
  const { settings, parts } = netlist.circuit;
  return [
    ...settings.map((setting) => ({ key: "run" as const, setting })),
    ...parts.flatMap((part) =>
      part.kind === "selector"
        ? (part.settings ?? []).map((at) => ({ key: "run" as const, selectors: { [part.id]: at } }))
        : [],
    ),
  ];
}

describe("what blew a fuse", () => {
  test("every fuse that feeds a wire has a cause that blew it, and each such wire only its nearest fuse", () => {
    const ids = catalogue(shippedNetlist("whimbrel-four-speed")).map((entry) => entry.id);
    const shorts = ids.filter((id) => id.includes(":to-ground+"));
    const byWire = new Map<string, number>();
    for (const id of shorts) {
      const wire = id.slice(0, id.indexOf(":"));
      byWire.set(wire, (byWire.get(wire) ?? 0) + 1);
    }
    expect(Math.max(...byWire.values())).toBe(1);
    for (const fuse of ["F1", "F7", "F19"])
      expect(shorts.some((id) => id.endsWith(`${fuse}:blown`))).toBe(true);
  });
});
