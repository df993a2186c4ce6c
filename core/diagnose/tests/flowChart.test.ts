// The fixed strategies and the simulator's instruments, on vehicles whose fault is known.

import { describe, expect, test } from "@jest/globals";
import { playVehicle } from "../../../benchmarks/fleet/play";
import { chanceFrom } from "../../chance/chance";
import { catalogue } from "../../fault/catalogue";
import { faultFromId } from "../../fault/fault";
import { sampleSeverity } from "../../practice/sampledVehicle";
import { SimulatedVehicle } from "../../practice/simulatedVehicle";
import { usualWorld, variations } from "../../practice/world";
import type { Reading } from "../../predict/reading";
import { shippedEngine, shippedNetlist } from "../../testing/shippedCircuit";
import { chartMinutes, followChart, swapBySymptom } from "./flowChart";

const exact = { ...usualWorld, slip: 0, heardSlip: 0, handError: 0, senses: 1 };

function vehicle(id: string, fault: string, seed = 3): SimulatedVehicle {
  const netlist = shippedNetlist(id);
  const placed = faultFromId(netlist, fault);
  if (!placed.ok) throw new Error(fault);
  return new SimulatedVehicle(netlist, placed.value, exact, chanceFrom(seed));
}

describe("the flow chart of docs/fleet.md", () => {
  test.each([
    ["whimbrel-four-speed", "F7:blown", "F7"],
    ["whimbrel-four-speed", "K3:stuck-open", "K3"],
    ["whimbrel-four-speed", "M1:open", "M1"],
    ["whimbrel-four-speed", "R1.link:open", "R1"],
    ["whimbrel-four-speed", "S2.L1:open", "S2"],
    ["whimbrel-pwm-low", "A1:dead", "A1"],
  ])("on %s with %s ends at %s, and its minutes increase with its tests", (id, fault, part) => {
    const engine = shippedEngine(id);
    const own = vehicle(id, fault);
    const result = followChart(engine, own, own.complaint());
    expect(result.replace).toBe(part);
    expect(result.looks).toBeGreaterThan(1);
    expect(result.minutes).toBeGreaterThan(0.3 * result.looks);
  });
});

describe("replacing parts by symptom", () => {
  const engine = shippedEngine("whimbrel-four-speed");
  const pwm = shippedEngine("whimbrel-pwm-low");
  const said = (speeds: Record<string, "none" | "weak" | "normal">, key: "run" | "off" = "run"): Reading[] =>
    Object.entries(speeds).map(([setting, seen]) => ({ test: "airflow", heard: true, key, setting, seen }));

  test("takes the pack if some speeds are dead, the motor if all are, the module if it never stops", () => {
    expect(swapBySymptom(engine, said({ off: "none", "1": "none", "4": "normal" }))).toBe("R1");
    expect(swapBySymptom(engine, said({ off: "none", "1": "none", "4": "none" }))).toBe("M1");
    expect(
      swapBySymptom(pwm, [...said({ off: "none", "7": "normal" }), ...said({ "7": "normal" }, "off")]),
    ).toBe("A1");
  });
});

describe("the simulator's instruments", () => {
  test("show correct readings for a battery, an open and a sound pack", () => {
    const own = vehicle("whimbrel-four-speed", "R1.link:open");
    const volts = own.take({ test: "volts", red: "F1.in", black: "G1.-", key: "run", setting: "off" });
    expect(volts.test === "volts" && volts.volts > 12 && volts.volts < 13).toBe(true);
    expect(own.take({ test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"] })).toHaveProperty(
      "ohms",
      null,
    );
    const element = own.take({ test: "ohms", red: "R1.T1", black: "R1.T2", unplugged: ["X5"] });
    expect(element.test === "ohms" && Math.abs((element.ohms ?? 9) - 1.2) < 0.3).toBe(true);
    expect(
      own.take({ test: "light", probe: "F1.in", clip: "G1.-", key: "run", setting: "4" }),
    ).toHaveProperty("seen", "bright");
    expect(own.take({ test: "amps", around: "M1", key: "run", setting: "2" })).toHaveProperty("amps");
  });

  test("a repeated test of something that does not change shows the same", () => {
    const own = vehicle("whimbrel-four-speed", "X5:4:high@1.5");
    const first = own.take({ test: "look", at: "X5" });
    for (let i = 0; i < 10; i++) expect(own.take({ test: "look", at: "X5" })).toEqual(first);
  });

  test("a loose contact comes and goes", () => {
    const own = vehicle("whimbrel-four-speed", "X3:1:loose@0.5");
    const seen = new Set(
      Array.from({ length: 40 }, () =>
        JSON.stringify(own.take({ test: "light", probe: "X3:1", clip: "G1.-", key: "run", setting: "4" })),
      ),
    );
    const air = new Set(Array.from({ length: 40 }, () => own.airflow({ key: "run", setting: "4" })));
    expect(air.size).toBeGreaterThan(1);
    // The pin's harness side has feed whatever the pin does.
    expect(seen.size).toBe(1);
  });

  test("slips happen about as often as the world says", () => {
    const netlist = shippedNetlist("whimbrel-four-speed");
    const placed = faultFromId(netlist, "F7:blown");
    if (!placed.ok) throw new Error("F7");
    const own = new SimulatedVehicle(netlist, placed.value, { ...exact, slip: 0.2 }, chanceFrom(9));
    let other = 0;
    for (let i = 0; i < 1000; i++) {
      const reading = own.take({ test: "light", probe: "F7.out", clip: "G1.-", key: "run", setting: "4" });
      if (reading.test === "light" && reading.seen !== "dark") other += 1;
    }
    // A slip puts the light on any point, and many points are dark too.
    expect(other).toBeGreaterThan(20);
    expect(other).toBeLessThan(200);
  });
});

describe("severities", () => {
  const netlist = shippedNetlist("whimbrel-four-speed");
  test("are the simulator's own, not the engine's middle values, and worse in a harsher world", () => {
    const entry = catalogue(netlist).find(({ family }) => family === "X5:4:high");
    if (!entry) throw new Error("no such fault");
    const ohms = (severity: number) =>
      Array.from(
        { length: 200 },
        (_, seed) =>
          sampleSeverity(netlist, entry, { ...exact, severity }, chanceFrom(seed)).names[0]?.value ?? 0,
      );
    const usual = ohms(1);
    expect(new Set(usual).size).toBeGreaterThan(150);
    expect(Math.min(...usual)).toBeGreaterThanOrEqual(0.25);
    expect(Math.max(...usual)).toBeLessThanOrEqual(30);
    expect(Math.max(...ohms(1.8))).toBeGreaterThan(Math.max(...usual));
  });

  test("every variation changes something in the usual world", () => {
    for (const change of Object.values(variations))
      for (const [key, value] of Object.entries(change)) {
        expect(usualWorld).toHaveProperty(key);
        expect(value).not.toEqual(usualWorld[key as keyof typeof usualWorld]);
      }
  });
});

describe("one vehicle played", () => {
  test("takes the same course twice with the same seed", () => {
    const id = "godwit-two-relays";
    const play = () =>
      playVehicle(shippedNetlist(id), shippedEngine(id), chanceFrom(12), {
        draw: "prior",
        world: usualWorld,
        diagnose: {},
        compare: true,
      });
    const once = play();
    expect(play()).toEqual(once);
    expect(once.log.length).toBeGreaterThan(once.looks);
    expect(once.minutes).toBeGreaterThan(0);
    expect(once.entropy).toBeGreaterThan(0);
  });
});

describe("the chart's minutes to a known fault", () => {
  const engine = shippedEngine("whimbrel-four-speed");
  const heard: Reading[] = ["none", "none", "none", "none", "normal"].map((seen, i) => ({
    test: "airflow",
    heard: true,
    key: "run",
    setting: engine.netlist.circuit.settings[i] ?? "off",
    seen: seen as "none" | "normal",
  }));
  const variant = (family: string) => engine.variants.findIndex((own) => own.family === family);

  test("are those on a vehicle that shows exactly what the engine expects", () => {
    const minutes = chartMinutes(engine, heard, variant("R1.link:open"));
    const own = vehicle("whimbrel-four-speed", "R1.link:open");
    expect(minutes).toBeCloseTo(followChart(engine, own, heard).minutes, 6);
  });

  test("are null if the chart blames another part", () => {
    expect(chartMinutes(engine, heard, variant("CAR:filter-blocked"))).toBeNull();
  });
});
