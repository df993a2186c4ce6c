// A blower that will not stop is silenced before anything else (common practice, no source).
import { describe, expect, test } from "@jest/globals";
import type { Reading } from "../../predict/reading";
import { setupState } from "../../solve/netlist/setup";
import { nominalValues } from "../../solve/netlist/values";
import { PointSolver } from "../../solve/pointSolver";
import { heard, shippedEngine, shippedIds } from "../../testing/shippedCircuit";
import { makeSafe } from "./makeSafe";

const runsWithKeyOff: Reading = { test: "airflow", heard: true, key: "off", setting: "4", seen: "normal" };

describe("a blower that will not stop", () => {
  test.each(shippedIds)(
    "on %s is stopped by the fuses named, and by the plugs, as the circuit solves it",
    (id) => {
      const compiled = shippedEngine(id);
      const { netlist } = compiled;
      const [, ...speeds] = netlist.circuit.settings;
      const top = speeds.at(-1) ?? "";
      const safe = makeSafe(compiled, [{ ...runsWithKeyOff, setting: top }]);
      const fuses = [...(safe?.fuses ?? [])];
      const solver = new PointSolver(netlist);
      const turns = (unplugged: string[]): boolean => {
        const solved = solver.solve(
          nominalValues(netlist),
          setupState(netlist, { key: "run", setting: top, unplugged }),
          [],
        );
        return netlist.motors.some((_, motor) => (solved.speeds[motor] ?? 0) > 1);
      };
      expect(turns([])).toBe(true);
      expect(fuses.length).toBeGreaterThan(0);
      expect({ fuses, turns: turns(fuses) }).toEqual({ fuses, turns: false });
      expect(turns([...(safe?.plugs ?? [])])).toBe(false);
    },
  );

  test("is one that runs with the key or the switch off, until that is seen to be gone", () => {
    const van = shippedEngine("whimbrel-four-speed");
    const stops = heard({ off: "none", "1": "normal", "4": "normal" });
    expect(makeSafe(van, stops)).toBeNull();
    expect(makeSafe(van, [...stops, runsWithKeyOff])).not.toBeNull();
    expect(makeSafe(van, heard({ off: "weak" }))).not.toBeNull();
    expect(makeSafe(van, [...heard({ off: "weak" }), ...heard({ off: "none" })])).toBeNull();
  });
});
