// Each test's observation model against the vehicle it represents. Trade facts are common practice, no source.
import { describe, expect, test } from "@jest/globals";
import { faultFromId } from "../../fault/fault";
import { operatingPoint } from "../../solve/operatingPoint";
import { shippedEngine, shippedIds, shippedNetlist } from "../../testing/shippedCircuit";
import { fusedLeads } from "../../testing/takenReadings";
import type { Test } from "../reading";
import type { CompiledCircuit } from "../tables/compiledCircuit";
import { observationOf } from "./index";

const engine = shippedEngine("whimbrel-four-speed");

/** The likeliest word a test gives for a fault, in the nominal vehicle. */
function likeliest(look: Test, fault: string, compiled: CompiledCircuit = engine): string {
  const model = observationOf(look.test);
  if (model.gives !== "word") throw new Error(look.test);
  const variant = compiled.variants.findIndex(({ family }) => family === fault);
  if (variant < 0) throw new Error(fault);
  const out = new Float64Array(model.outcomes.length);
  model.odds(compiled, look, false)(variant, 0, out);
  expect(out.reduce((sum, p) => sum + p, 0)).toBeCloseTo(1, 6);
  return model.outcomes[out.indexOf(Math.max(...out))] ?? "";
}

describe("words", () => {
  const running = { key: "run", setting: "4" } as const;
  test.each<[Test, string, string]>([
    [{ test: "listen", ...running }, "M1:bearing-dry", "squeal"],
    [{ test: "listen", ...running }, "M1:bearing-worn", "rumble"],
    [{ test: "listen", ...running }, "M1:debris", "tick"],
    [{ test: "listen", ...running }, "M1:open", "quiet"],
    [{ test: "spin", at: "M1" }, "M1:seized", "seized"],
    [{ test: "spin", at: "M1" }, "M1:tight", "stiff"],
    [{ test: "look", at: "F7" }, "F7:blown", "blown"],
    [{ test: "look", at: "X5" }, "X5:4:high", "melted"],
    [{ test: "tap", at: "M1", ...running }, "M1:dead-spot", "starts"],
    [{ test: "tap", at: "X5", ...running }, "M1:dead-spot", "nothing"],
    [{ test: "swap", at: "K3" }, "K3:stuck-open", "fixed"],
    [{ test: "swap", at: "K3" }, "F7:blown", "same"],
    [{ test: "ripple", at: "M1", ...running }, "M1:worn-brushes", "uneven"],
    [{ test: "ripple", at: "M1", ...running }, "R1.link:open", "even"],
    [{ test: "ripple", at: "M1", ...running }, "F7:blown", "missing"],
    [{ test: "lampload", lampFor: "M1", ...running }, "M1:open", "bright"],
    [{ test: "lampload", lampFor: "M1", ...running }, "W9:open", "dark"],
    // With everything off, only a short draws current through the lamp in the fuse's socket.
    [{ test: "lampload", lampFor: "F7", key: "run", setting: "off" }, "W9:to-ground+F7:blown", "bright"],
    [{ test: "lampload", lampFor: "F7", key: "run", setting: "off" }, "F7:blown", "dark"],
    [{ test: "airflow", key: "run", setting: "2" }, "R1.link:open", "none"],
    [{ test: "airflow", key: "run", setting: "4" }, "R1.link:open", "normal"],
    [{ test: "airflow", key: "run", setting: "4" }, "M1:wheel-loose", "none"],
    // Fed directly by leads with its plug off, a sound motor runs whatever the harness is like.
    [fusedLeads, "W9:open", "normal"],
    [fusedLeads, "M1:open", "none"],
  ])("%j under %s is %s", (look, fault, word) => expect(likeliest(look, fault)).toBe(word));

  test("a shorted output stage runs with the key off; a resistor pack cannot", () => {
    const pwm = shippedEngine("whimbrel-pwm-low");
    const keyOff: Test = { test: "airflow", key: "off", setting: "7" };
    expect(likeliest(keyOff, "A1:full-on", pwm)).toBe("strong");
    for (const family of ["R1.link:open", "R1.e1:open", "M1:tight"])
      expect(likeliest({ test: "airflow", key: "off", setting: "4" }, family)).toBe("none");
  });

  test("a lamp in the motor's place follows the setting of a sound module but not of a dead one", () => {
    const pwm = shippedEngine("whimbrel-pwm-low");
    const at = (setting: string): Test => ({ test: "lampload", lampFor: "M1", key: "run", setting });
    expect(likeliest(at("7"), "M1:open", pwm)).toBe("bright");
    expect(likeliest(at("1"), "M1:open", pwm)).not.toBe("bright");
    expect(likeliest(at("7"), "A1:dead", pwm)).toBe("dark");
  });
});

describe("numbers", () => {
  const nominalOf = (compiled: CompiledCircuit, look: Test, row: number): number => {
    const model = observationOf(look.test);
    if (model.gives !== "number") throw new Error(look.test);
    return model.value(compiled, look)(row, 0);
  };

  test.each(shippedIds)("on %s the engine's lumped wires predict what the exact circuit shows", (id) => {
    const compiled = shippedEngine(id);
    const exact = shippedNetlist(id);
    const setting = exact.circuit.settings.at(-1) ?? "";
    const healthy = operatingPoint(exact, { key: "run", setting });
    for (const { id: wire } of exact.circuit.wires) {
      const amps = nominalOf(compiled, { test: "amps", around: wire, key: "run", setting }, 0);
      expect(Math.abs(amps - (healthy.amps[wire] ?? 0))).toBeLessThan(0.02);
    }
    for (const [point, volts] of Object.entries(healthy.volts)) {
      if (volts === null || point.includes("/")) continue;
      const shown = nominalOf(compiled, { test: "volts", red: point, black: "G1.-", key: "run", setting }, 0);
      expect(Math.abs(shown - volts)).toBeLessThan(0.03);
    }
  });

  test("ohms on the dead circuit include parallel paths, as a meter sees them", () => {
    // With the plug on and the switch at off, nothing else joins the pack's taps, so the meter sees e1 alone.
    const healthy = nominalOf(engine, { test: "ohms", red: "R1.T1", black: "R1.T2" }, 0);
    const leads = 0.03;
    expect(healthy).toBeCloseTo(1.2 + leads, 2);
    // From motor plus to motor minus the winding: rated volts over stall amps.
    const winding = nominalOf(engine, { test: "ohms", red: "M1.+", black: "M1.-", unplugged: ["X3"] }, 0);
    expect(winding).toBeCloseTo(13.5 / 70 + leads, 3);
  });

  test("the largest and smallest size of a band lie on either side of its middle", () => {
    const entry = engine.variants.find(({ family }) => family === "X5:4:high");
    const placed = faultFromId(engine.netlist, entry?.id ?? "");
    expect(placed.ok && placed.value.changes).toEqual(entry?.fault.changes);
    const ohms = engine.samples.map((_, draw) => {
      const [change] = engine.rows[entry?.rows[0]?.row ?? 0]?.[draw] ?? [];
      return change?.type === "series" ? change.ohms : Number.NaN;
    });
    expect(new Set(ohms).size).toBeGreaterThanOrEqual(engine.samples.length - 1);
    const band = entry?.bands[0];
    for (const size of ohms) {
      expect(size).toBeGreaterThanOrEqual(band?.low ?? 0);
      expect(size).toBeLessThanOrEqual(band?.high ?? 0);
    }
  });
});
