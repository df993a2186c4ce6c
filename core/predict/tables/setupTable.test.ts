// The tables behind every prediction: each cell is one operating point, by whatever method it was solved.
import { describe, expect, test } from "@jest/globals";
import { setupState } from "../../solve/netlist/setup";
import { PointSolver } from "../../solve/pointSolver";
import { shippedEngine } from "../../testing/shippedCircuit";
import { suggestedPoints, suggestedProbes } from "../probePoints";
import { isReachable } from "../reach";
import { CompiledCircuit } from "./compiledCircuit";

describe.each(["whimbrel-four-speed", "whimbrel-pwm-low", "dunlin-rear-blower"])("tables of %s", (id) => {
  const engine = shippedEngine(id);
  const { netlist, samples: draws, rows } = engine;
  const solver = new PointSolver(netlist);

  test.each(["off", "1", engine.topSetting()])(
    "on %s every sampled cell is the operating point a fresh solver finds",
    (setting) => {
      const setup = { key: "run", setting } as const;
      const table = engine.table(setup);
      const state = setupState(netlist, setup);
      let compared = 0;
      const apart: object[] = [];
      for (let row = 0; row < rows.length; row += 3) {
        for (const draw of [0, 3, 11]) {
          const vehicle = draws[draw];
          if (!vehicle) continue;
          const solved = solver.solve(vehicle.values, state, rows[row]?.[draw] ?? []);
          if (solved.buzzing.includes(1)) continue;
          for (let node = 0; node < netlist.nodeNames.length; node += 3) {
            const kept = table.voltsAt(row, draw, node);
            const same =
              solved.floating[node] === 1
                ? Number.isNaN(kept)
                : Math.abs(kept - (solved.volts[node] ?? 0)) < 0.01;
            if (!same) apart.push({ row, draw, node, kept });
            compared += 1;
          }
          for (let motor = 0; motor < netlist.motors.length; motor++) {
            const speed = solved.speeds[motor] ?? 0;
            const kept = table.speedAt(row, draw, motor);
            if (!(Math.abs(kept - speed) < 0.002 * Math.max(50, speed)))
              apart.push({ row, draw, motor, kept });
          }
        }
      }
      expect(apart).toEqual([]);
      expect(compared).toBeGreaterThan(500);
    },
  );

  test("the ohms behind a node are those between it and the reference", () => {
    const setup = { key: "run", setting: engine.topSetting() } as const;
    const state = setupState(netlist, setup);
    const behind = new Float64Array(netlist.nodeNames.length);
    for (let row = 0; row < rows.length; row += 29) {
      const [nominal] = draws;
      if (!nominal) continue;
      solver.solve(nominal.values, state, rows[row]?.[0] ?? []);
      solver.ohmsBehind(behind);
      for (let node = 0; node < behind.length; node += 2) {
        const ohms = solver.ohmsBetween(node, -1);
        if (Number.isFinite(ohms)) expect(behind[node]).toBeCloseTo(ohms, 6);
        else expect(behind[node]).toBe(Number.POSITIVE_INFINITY);
      }
    }
  });

  test("its numbers can be transferred to another thread's table, once every row is solved", () => {
    const setup = { key: "run", setting: engine.topSetting() } as const;
    const whole = engine.table(setup);
    whole.complete();
    const other = new CompiledCircuit(netlist);
    expect(() => other.table(setup).parts()).toThrow(RangeError);
    other.table(setup).adopt(structuredClone(whole.parts()));
    for (let row = 0; row < rows.length; row += 17)
      for (const draw of [0, 5]) {
        for (let node = 0; node < netlist.nodeNames.length; node++)
          expect(other.table(setup).voltsAt(row, draw, node)).toBe(whole.voltsAt(row, draw, node));
        expect(other.table(setup).airflowAt(row, draw, 0)).toBe(whole.airflowAt(row, draw, 0));
        expect(other.table(setup).buzzes(row, draw)).toBe(whole.buzzes(row, draw));
      }
  });

  test("progress rises to the end, and a stop is obeyed", () => {
    const told: number[] = [];
    engine.prepare((share) => told.push(share) > 0);
    expect(told.at(-1)).toBe(1);
    for (let i = 1; i < told.length; i++) expect(told[i]).toBeGreaterThan(told[i - 1] ?? 0);
    let calls = 0;
    engine.prepare(() => ++calls < 2);
    expect(calls).toBe(2);
  });
});

test("a panel without ground stays dead, although its own output would hold it up once it was on", () => {
  const engine = shippedEngine("whimbrel-pwm-low");
  const { netlist, samples: draws, variants, rows } = engine;
  const solver = new PointSolver(netlist);
  const setup = { key: "run", setting: "2" } as const;
  const lost = variants.filter(({ id }) => id.endsWith(":open") && /^(E3|W10)\b/.test(id));
  expect(lost).toHaveLength(2);
  for (const row of lost.flatMap((variant) => variant.rows.map((own) => own.row)))
    for (const [draw, { values }] of draws.entries()) {
      const solved = solver.solve(values, setupState(netlist, setup), rows[row]?.[draw] ?? []);
      for (const [node, volts] of solved.volts.entries()) {
        const kept = engine.table(setup).voltsAt(row, draw, node);
        if (solved.floating[node] === 1) expect(kept).toBeNaN();
        else expect(kept).toBeCloseTo(volts, 2);
      }
    }
});

describe("points and set-ups worth suggesting", () => {
  test("no node twice, and only what a probe can touch with everything plugged in", () => {
    const engine = shippedEngine("whimbrel-four-speed");
    const points = suggestedPoints(engine);
    const nodes = points.map((point) => engine.netlist.nodeOf.get(point));
    expect(new Set(nodes).size).toBe(nodes.length);
    expect(points.every((point) => isReachable(engine.netlist, point, new Set()))).toBe(true);
    expect(points).toEqual(expect.arrayContaining(["X5:1", "F7.in", "F7.out", "E1.31"]));
  });

  test("a relay's sockets, with that relay out", () => {
    const sockets = suggestedProbes(shippedEngine("whimbrel-four-speed")).filter(
      ({ setup }) => setup.unplugged,
    );
    expect(sockets.map(({ point, setup }) => `${point} ${setup.unplugged?.join()} ${setup.setting}`)).toEqual(
      ["K3.30 K3 4", "K3.86 K3 4", "K3.85 K3 4", "K3.87 K3 4"],
    );
  });
});
