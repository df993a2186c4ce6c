import { describe, expect, test } from "@jest/globals";
import { parseCircuit } from "../../circuit/parseCircuit";
import { problemText } from "../../problem/problem";
import { netlistOf, shippedIds, shippedJson, shippedNetlist } from "../../testing/shippedCircuit";
import { healthyPoints } from "../healthyPoint";
import { type CircuitFinding, circuitFindings } from "./circuitFinding";

interface Raw {
  parts: Record<string, unknown>[];
  wires: Record<string, unknown>[];
}

/** The findings for the shipped van with one value spoilt. */
function found(spoil: (raw: Raw) => void): CircuitFinding[] {
  const raw = shippedJson("whimbrel-four-speed") as unknown as Raw;
  spoil(raw);
  const parsed = parseCircuit(raw);
  if (!parsed.ok) throw new Error(parsed.problems.map(problemText).join("; "));
  return circuitFindings(netlistOf(parsed.value));
}
const part = ({ parts }: Raw, id: string) => parts.find((own) => own.id === id) as Record<string, unknown>;
/** Changes one key of an item. */
const set = (item: Record<string, unknown>, key: string, value: unknown): void => {
  item[key] = value;
};
const wire = ({ wires }: Raw, id: string) => wires.find((own) => own.id === id) as Record<string, unknown>;

test.each(shippedIds)("%s: a shipped circuit has no findings", (id) => {
  expect(circuitFindings(shippedNetlist(id))).toEqual([]);
});

// A pack in the air stream is built for some tens of watts (common practice, no source; the limits are wide).
test.each(shippedIds)("%s: speeds increase strictly, and a pack has sensible watts", (id) => {
  const netlist = shippedNetlist(id);
  const points = healthyPoints(netlist).map(({ point }) => point);
  const speeds = points.map(({ rpm }) => rpm[netlist.motors[0]?.part.id ?? ""] ?? 0);
  expect(speeds[0]).toBe(0);
  for (const [index, own] of speeds.entries())
    if (index > 0) expect(own).toBeGreaterThan(speeds[index - 1] as number);
  const packs = netlist.circuit.parts.filter(({ kind }) => kind === "resistor");
  const heat = points.map(({ watts }) =>
    Object.entries(watts)
      .filter(([piece]) => packs.some((pack) => piece.startsWith(`${pack.id}.`)))
      .reduce((sum, [, own]) => sum + own, 0),
  );
  expect(heat[0]).toBeCloseTo(0, 6);
  if (packs.length > 0) expect(Math.max(...heat)).toBeGreaterThan(15);
  expect(Math.max(...heat)).toBeLessThan(60);
});

describe("what no vehicle could run with", () => {
  test("a ground point without a wire, and no ground at all", () => {
    const codes = (findings: readonly CircuitFinding[]) => findings.map(({ what }) => what.code);
    const unwired = found(({ parts }) => parts.push({ id: "E77", kind: "ground", ohms: 0.002 }));
    expect(unwired).toMatchObject([{ weight: "wrong", what: { code: "ground-not-wired", part: "E77" } }]);
    const none = found((raw) => {
      const grounds = raw.parts.flatMap(({ kind, id }) => (kind === "ground" ? [`${id as string}.31`] : []));
      raw.wires = raw.wires.filter(
        ({ from, to }) => !grounds.includes(from as string) && !grounds.includes(to as string),
      );
    });
    expect(codes(none)).toContain("no-ground");
    expect(codes(none)).toContain("never-turns");
  });

  test("a fuse that would let its wire burn", () => {
    expect(found((raw) => set(part(raw, "F7"), "amps", 500))).toMatchObject([
      { weight: "wrong", what: { code: "fuse-too-large", fuse: "F7", ratedAmps: 500 } },
    ]);
  });
});

describe("what is probably wrong, by its place", () => {
  test("a pack whose coils are in reverse", () => {
    const pack = (raw: Raw) => part(raw, "R1").elements as { ohms?: number }[];
    const reversed = found((raw) => {
      const coils = pack(raw).filter(({ ohms }) => ohms !== undefined);
      const ohms = coils.map((coil) => coil.ohms).reverse();
      coils.forEach((coil, index) => {
        Object.assign(coil, { ohms: ohms[index] });
      });
    });
    expect(reversed.map(({ what }) => what.code)).toContain("pack-order");
  });

  const place = (pattern: RegExp) => expect.stringMatching(pattern);

  test("a fuse too small for the healthy current", () => {
    const [finding, ...more] = found((raw) => set(part(raw, "F7"), "amps", 10));
    expect(more).toEqual([]);
    expect(finding).toMatchObject({
      weight: "wrong",
      path: place(/^parts\.\d+\.amps$/),
      what: { code: "fuse-too-small", fuse: "F7", ratedAmps: 10, setting: "4" },
    });
    if (finding?.what.code === "fuse-too-small") expect(finding.what.amps).toBeGreaterThan(10);
    expect(found((raw) => set(part(raw, "F7"), "amps", 15))[0]).toMatchObject({
      weight: "doubtful",
      what: { fuse: "F7", ratedAmps: 15 },
    });
  });

  test("a wire too thin or too long for its current", () => {
    expect(found((raw) => set(wire(raw, "W9"), "mm2", 0.5))[0]).toMatchObject({
      weight: "doubtful",
      path: place(/^wires\.\d+\.mm2$/),
      what: { code: "wire-too-thin", wire: "W9", mm2: 0.5, setting: "4", ableAmps: 11 },
    });
    expect(found((raw) => set(wire(raw, "W9"), "metres", 14))[0]).toMatchObject({
      weight: "doubtful",
      path: place(/^wires\.\d+$/),
      what: { code: "wire-drops", wire: "W9", metres: 14 },
    });
  });

  test("a short across the battery, and nothing else with it", () => {
    expect(
      found(
        (raw) =>
          void raw.wires.push({ id: "W99", from: "F7.out", to: "E1.31", colour: "RD", mm2: 2.5, metres: 1 }),
      ),
    ).toMatchObject([
      { weight: "wrong", path: place(/^wires\.\d+$/), what: { code: "short", setting: "off" } },
    ]);
  });

  test("a speed that changes nothing, and one that is slower than the last", () => {
    const pack = (ohms: number, element: number) => (raw: Raw) => {
      (part(raw, "R1").elements as { ohms?: number }[])[element] = {
        ...(part(raw, "R1").elements as { ohms?: number }[])[element],
        ohms,
      };
    };
    expect(found(pack(0.0001, 1))).toMatchObject([
      { weight: "doubtful", path: "settings.3", what: { code: "same-speed", setting: "3" } },
    ]);
    const swapped = found((raw) => {
      const [low, high] = [wire(raw, "W13"), wire(raw, "W15")];
      [low.from, high.from] = [high.from, low.from];
    });
    expect(swapped.map(({ what }) => what.code)).toContain("slower");
  });

  test("a splice that joins nothing", () => {
    expect(found((raw) => void raw.parts.push({ id: "J9", kind: "splice" }))).toMatchObject([
      { weight: "doubtful", what: { code: "splice-joins-nothing", part: "J9" } },
    ]);
  });

  test("a motor that never turns, and an unconnected terminal", () => {
    const cut = found((raw) => {
      raw.wires = raw.wires.filter(({ id }) => id !== "W9");
    });
    expect(cut.map(({ what }) => what)).toEqual(
      expect.arrayContaining([
        { code: "no-wire", terminals: ["K3.87"] },
        { code: "no-wire", terminals: ["M1.+"] },
        { code: "never-turns", motor: "M1" },
      ]),
    );
  });
});
