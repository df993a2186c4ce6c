// Relays, wake and sleep, unplugged connectors and several motors, on circuits small enough to work by hand.
import { describe, expect, test } from "@jest/globals";
import type { Circuit } from "../../circuit/circuit";
import { parseCircuit } from "../../circuit/parseCircuit";
import { motorConstants, steadySpeed } from "../../motor/motorConstants";
import { problemText } from "../../problem/problem";
import { netlistOf, shippedCircuit, shippedNetlist } from "../../testing/shippedCircuit";
import { buildNetlist } from "../buildNetlist";
import { setupProblems } from "../netlist/setup";
import { groupsOf } from "../network/connectivity";
import { operatingPoint } from "../operatingPoint";

function circuitOf(parts: unknown[], wires: [string, string][], more: object = {}): Circuit {
  const parsed = parseCircuit({
    format: "airway-circuit",
    version: 1,
    id: "bench",
    title: "bench",
    settings: ["off", "1"],
    parts: [
      { id: "G1", kind: "battery", restVolts: 12, chargingVolts: 14, ohms: 0 },
      { id: "E1", kind: "ground", ohms: 0 },
      ...parts,
    ],
    connectors: [],
    wires: wires.map(([from, to], i) => ({
      id: `W${i + 1}`,
      from,
      to,
      colour: "RD",
      mm2: 100,
      metres: 0,
      fromOhms: 0,
      toOhms: 0,
    })),
    places: [],
    ...more,
  });
  if (!parsed.ok) throw new Error(parsed.problems.map(problemText).join("; "));
  return parsed.value;
}

const resistor = (id: string, ohms: number) => ({
  id,
  kind: "resistor",
  elements: [{ id: "e", from: "a", to: "b", ohms }],
});
const relay = (id: string, more: object = {}) => ({
  id,
  kind: "relay",
  coilOhms: 80,
  pullInVolts: 7,
  contactOhms: 0.01,
  ...more,
});

describe("relays", () => {
  test.each([
    [40, true],
    [55, true],
    // 12 V × 80 / (80 + 60) = 6.86 V, which is below its 7 V.
    [60, false],
  ])("with %p Ω in the coil's feed it pulls in: %p", (ohms, pulled) => {
    const netlist = netlistOf(
      circuitOf(
        [relay("K1"), resistor("R1", ohms), resistor("R2", 10)],
        [
          ["G1.+", "R1.a"],
          ["R1.b", "K1.86"],
          ["K1.85", "E1.31"],
          ["G1.+", "K1.30"],
          ["K1.87", "R2.a"],
          ["R2.b", "E1.31"],
        ],
      ),
    );
    const point = operatingPoint(netlist, {});
    expect(point.amps["R2.e"] ?? 0).toBeCloseTo(pulled ? 12 / 10.01 : 0, 4);
    expect(point.volts["K1.86"]).toBeCloseTo((12 * 80) / (80 + ohms), 4);
  });

  test("the coil pulls in with either polarity, and one relay may switch the next", () => {
    const netlist = netlistOf(
      circuitOf(
        [relay("K1"), relay("K2"), resistor("R2", 10)],
        [
          ["G1.+", "K1.85"],
          ["K1.86", "E1.31"],
          ["G1.+", "K1.30"],
          ["K1.87", "K2.86"],
          ["K2.85", "E1.31"],
          ["G1.+", "K2.30"],
          ["K2.87", "R2.a"],
          ["R2.b", "E1.31"],
        ],
      ),
    );
    expect(operatingPoint(netlist, {}).amps["R2.e"]).toBeCloseTo(12 / 10.01, 4);
    const out = operatingPoint(netlist, { unplugged: ["K1"] });
    expect(out.amps["R2.e"]).toBeCloseTo(0, 9);
    // The part on its contact is now grounded through the next coil: it reads 0 V and does not float.
    expect(out.volts["K2.86"]).toBeCloseTo(0, 9);
  });

  test("it holds down to its drop-out volts: a sagging feed does not release it", () => {
    // The coil behind 20 Ω gets 9.6 V while released. When pulled in, its own contact loads the feed with 20 Ω and 5.3
    // V is left, which is above 40 % of pull-in.
    const netlist = netlistOf(
      circuitOf(
        [relay("K1"), resistor("R1", 20), resistor("R2", 20)],
        [
          ["G1.+", "R1.a"],
          ["R1.b", "K1.86"],
          ["K1.85", "E1.31"],
          ["R1.b", "K1.30"],
          ["K1.87", "R2.a"],
          ["R2.b", "E1.31"],
        ],
      ),
    );
    const point = operatingPoint(netlist, {});
    expect(point.buzzing).toEqual([]);
    expect(point.volts["K1.86"]).toBeCloseTo((12 * 16) / (16 + 20), 1);
    expect(point.volts["K1.86"]).toBeLessThan(7);
  });

  test("if the load takes it below drop-out it buzzes, and the values are the mean", () => {
    const netlist = netlistOf(
      circuitOf(
        [relay("K1"), resistor("R1", 20), resistor("R2", 1)],
        [
          ["G1.+", "R1.a"],
          ["R1.b", "K1.86"],
          ["K1.85", "E1.31"],
          ["R1.b", "K1.30"],
          ["K1.87", "R2.a"],
          ["R2.b", "E1.31"],
        ],
      ),
    );
    const point = operatingPoint(netlist, {});
    expect(point.buzzing).toEqual(["K1"]);
    const released = (12 * 80) / 100;
    const loaded = 1 / (1 / 80 + 1 / 1.01);
    expect(point.volts["K1.86"]).toBeCloseTo((released + (12 * loaded) / (20 + loaded)) / 2, 3);
  });
});

describe("a control module wakes and sleeps", () => {
  const control = { id: "A1", kind: "module", side: "low", drive: "pwm", commandVolts: [4, 0], onOhms: 0.01 };
  const motor = { id: "M1", kind: "motor", ratedVolts: 12, ratedAmps: 15, stallAmps: 60, ratedRpm: 3000 };
  /** The panel's feed has a series resistance; an open command wire reads 0 V, which here asks for full speed. */
  const fed = (ohms: number) =>
    operatingPoint(
      netlistOf(
        circuitOf(
          [control, motor, resistor("R1", ohms)],
          [
            ["G1.+", "R1.a"],
            ["R1.b", "A1.30"],
            ["A1.31", "E1.31"],
            ["A1.m+", "M1.+"],
            ["A1.m-", "M1.-"],
          ],
        ),
      ),
      {},
    );

  test("on a good feed it is full on; behind ohms that take its supply below 5 V it oscillates", () => {
    expect(fed(0.01).rpm.M1).toBeGreaterThan(2500);
    expect(fed(0.01).buzzing).toEqual([]);
    expect(fed(3).buzzing).toEqual(["A1"]);
    // In between, the supply sags below the 7 V that wake the module but stays above the 5 V that put it to sleep.
    const sagging = fed(0.8);
    expect(sagging.buzzing).toEqual([]);
    expect(sagging.volts["A1.30"]).toBeLessThan(7);
    expect(sagging.volts["A1.30"]).toBeGreaterThan(5);
  });
});

describe("two motors on one feed", () => {
  test("each follows its own law at its volts, and the feed carries both", () => {
    const motors = [
      { id: "M1", kind: "motor", ratedVolts: 12, ratedAmps: 15, stallAmps: 60, ratedRpm: 3000 },
      { id: "M2", kind: "motor", ratedVolts: 12, ratedAmps: 8, stallAmps: 30, ratedRpm: 2500 },
    ] as const;
    const netlist = netlistOf(
      circuitOf(
        [...motors, resistor("R1", 0.2)],
        [
          ["G1.+", "R1.a"],
          ["R1.b", "M1.+"],
          ["R1.b", "M2.+"],
          ["M1.-", "E1.31"],
          ["M2.-", "E1.31"],
        ],
      ),
    );
    const point = operatingPoint(netlist, {});
    // A wire of one or two microohms lies between the feed and each motor.
    const volts = point.volts["R1.b"] ?? 0;
    for (const motor of motors) {
      const constants = motorConstants(motor);
      const speed = steadySpeed(constants, volts);
      expect(point.rpm[motor.id]).toBeCloseTo((speed * 30) / Math.PI, 1);
      expect(point.amps[motor.id]).toBeCloseTo((volts - constants.k * speed) / constants.ohms, 3);
    }
    expect(point.amps["R1.e"]).toBeCloseTo((point.amps.M1 ?? 0) + (point.amps.M2 ?? 0), 6);
    expect(volts).toBeCloseTo(12 - 0.2 * (point.amps["R1.e"] ?? 0), 3);
  });
});

describe("connected groups", () => {
  test.each<[number, number[], number]>([
    [3, [], 4],
    [3, [0, -1], 3],
    [3, [0, 1, 1, 2], 2],
    [3, [0, 1, 1, 2, 2, -1], 1],
    [5, [0, 1, 2, 3, 3, 2, 4, -1], 3],
  ])("%p nodes with links %p make %p groups, including the reference's", (size, ends, count) => {
    const groups = groupsOf(size, ends);
    expect(groups.count).toBe(count);
    expect(groups.pins).toHaveLength(count - 1);
    for (const [i, node] of groups.pins.entries()) expect(groups.of[node]).toBe(i + 1);
  });
});

describe("set-ups", () => {
  const netlist = shippedNetlist("dunlin-rear-blower");
  test.each<[object, RegExp]>([
    [{ key: "off", engine: true }, /engine: the engine runs only with key "run"/],
    [{ setting: "9" }, /setting: unknown setting "9", expected one of off, 1, 2, 3/],
    [{ selectors: { S9: "low" } }, /selectors\.S9: no selector "S9"/],
    [{ selectors: { S3: "7" } }, /selectors\.S3: unknown setting "7", expected one of off, low, high/],
    [{ unplugged: ["M1"] }, /unplugged\.0: expected a connector, fuse or relay, got "M1"/],
    [{ bridged: [["X3:1", "X3:9"]] }, /bridged\.0\.1: no point "X3:9"/],
    [{ lampFor: "R1" }, /lampFor: expected a motor or a fuse, got "R1"/],
  ])("%j is refused by its place", (setup, message) =>
    expect(setupProblems(netlist, setup).map(problemText).join()).toMatch(message),
  );

  test("a second switch stands at its first position until it is moved", () => {
    const still = operatingPoint(netlist, { key: "run", setting: "3" });
    const both = operatingPoint(netlist, { key: "run", setting: "3", selectors: { S3: "high" } });
    expect(still.rpm.M2).toBe(0);
    expect(both.rpm.M2).toBeGreaterThan(1500);
    expect(both.rpm.M1).toBeLessThan(still.rpm.M1 ?? 0);
  });

  test("a jump lead across an open wire makes the motor run again", () => {
    const whimbrel = shippedNetlist("whimbrel-four-speed");
    const open = {
      type: "series",
      branch: whimbrel.branchOf.get("W9") ?? 0,
      ohms: Number.POSITIVE_INFINITY,
    } as const;
    const setup = { key: "run", setting: "4" } as const;
    expect(operatingPoint(whimbrel, setup, [open]).rpm.M1).toBe(0);
    const bridged = { ...setup, bridged: [["K3.87", "M1.+"]] as const };
    expect(operatingPoint(whimbrel, bridged, [open]).rpm.M1).toBeGreaterThan(2500);
  });
});

test("lumped wires keep every point's name and change no healthy speed", () => {
  for (const id of ["whimbrel-four-speed", "siskin-linear-low"]) {
    const lumped = buildNetlist(shippedCircuit(id), { lumpWires: true });
    if (!lumped.ok) throw new Error(id);
    const exact = shippedNetlist(id);
    expect(lumped.value.points.names).toEqual(exact.points.names);
    expect(lumped.value.nodeNames.length).toBeLessThan(0.65 * exact.nodeNames.length);
    for (const setting of exact.circuit.settings) {
      const setup = { key: "run", setting } as const;
      expect(operatingPoint(lumped.value, setup).rpm.M1).toBeCloseTo(
        operatingPoint(exact, setup).rpm.M1 ?? -1,
        4,
      );
    }
  }
});
