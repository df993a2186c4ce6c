// The trade's own cases (common practice, no source): what was seen, in the order it was seen, and what was wrong.
import { describe, expect, test } from "@jest/globals";
import type { Reading } from "../predict/reading";
import { heard, shippedEngine } from "../testing/shippedCircuit";
import { fusedLeads, light, look, volts } from "../testing/takenReadings";
import { diagnose } from "./diagnose";

function diagnosed(id: string, readings: readonly Reading[]) {
  const result = diagnose(shippedEngine(id), readings);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}

const fourDead = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "none" });
const onlyTop = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "normal" });
const allRight = heard({ off: "none", "1": "normal", "2": "normal", "3": "normal", "4": "normal" });

/** Air that fades on every speed. */
const fading: Reading[] = ["1", "2", "3", "4"].map((setting) => ({
  test: "airflow",
  heard: true,
  key: "run",
  setting,
  seen: "weak",
  pattern: "fades",
}));

describe("the trade's cases", () => {
  test("only the top speed, the switch's outputs good, the plug melted: the pack and its plug", () => {
    const { parts, verdict, conflicts } = diagnosed("whimbrel-four-speed", [
      ...onlyTop,
      light("X6:2", "G1.+", "1", "bright"),
      light("X6:3", "G1.+", "2", "bright"),
      look("X5", "melted"),
    ]);
    expect(conflicts).toEqual([]);
    expect(verdict.replace).toEqual(["R1", "X5"]);
    expect(parts.slice(0, 2).map(({ part }) => part)).toEqual(expect.arrayContaining(["R1", "X5"]));
  });

  test("one speed left, its lead burnt at the plug: pack or plug, and the burnt lead is no contradiction", () => {
    const { parts, conflicts } = diagnosed("whimbrel-four-speed", [
      ...heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "weak" }),
      look("X5", "melted"),
    ]);
    expect(conflicts).toEqual([]);
    expect(["R1", "X5", "M1"]).toContain(parts[0]?.part);
    expect(parts.find(({ part }) => part === "X5")?.p).toBeGreaterThan(0.2);
  });

  test("it never stops, even with the key out: the control", () => {
    const settings = shippedEngine("whimbrel-pwm-low").netlist.circuit.settings;
    const { parts, conflicts } = diagnosed("whimbrel-pwm-low", [
      ...heard(Object.fromEntries(settings.map((setting) => [setting, "strong"]))),
      { test: "airflow", heard: true, key: "off", setting: settings.at(-1), seen: "strong" },
    ]);
    expect(parts[0]?.part).toBe("A1");
    expect(parts[0]?.p).toBeGreaterThan(0.8);
    expect(conflicts).toEqual([]);
  });

  test("the same speed whatever is asked, and wet underneath: the control, and the water is no slip", () => {
    const settings = shippedEngine("whimbrel-pwm-low").netlist.circuit.settings;
    const same = heard(
      Object.fromEntries(
        settings.map((setting, place) => [setting, place === 0 ? "weak" : place < 4 ? "normal" : "weak"]),
      ),
    );
    const { parts, conflicts } = diagnosed("whimbrel-pwm-low", [
      ...same,
      { test: "history", heard: true, of: "wet-carpet", seen: "yes" },
      look("A1", "wet"),
    ]);
    expect(parts[0]?.part).toBe("A1");
    expect(conflicts).toEqual([]);
  });

  test("a whistle that stops with a finger over the vent hole: the motor", () => {
    const whistle: Reading[] = [
      ...allRight,
      { test: "listen", heard: true, key: "run", setting: "4", seen: "whistle", followsSpeed: true },
    ];
    const before = diagnosed("whimbrel-four-speed", whistle);
    expect(before.parts[0]?.part).toBe("M1");
    // No voltages first: the finger goes over the hole.
    const covered = { test: "listen", key: "run", setting: "4", ventCovered: true } as const;
    expect(before.next[0]?.test).toEqual(covered);
    const { parts, verdict } = diagnosed("whimbrel-four-speed", [...whistle, { ...covered, seen: "quiet" }]);
    expect(parts[0]?.part).toBe("M1");
    expect(verdict).toMatchObject({ state: "settled", replace: ["M1"] });
  });

  test("a squeal, and the wheel is stiff: the motor's dry bearing", () => {
    const { suspects } = diagnosed("whimbrel-four-speed", [
      ...allRight,
      { test: "listen", heard: true, key: "run", setting: "4", seen: "squeal", followsSpeed: true },
      { test: "spin", at: "M1", seen: "stiff" },
    ]);
    expect(suspects[0]?.fault).toBe("M1:bearing-dry");
  });

  test("every speed dead, feed at the switch's input and nothing at its outputs: the switch", () => {
    const { parts } = diagnosed("dotterel-switch-feed", switchDead("dotterel-switch-feed"));
    expect(parts[0]?.part).toMatch(/^S[^1]/);
    expect(parts[0]?.p).toBeGreaterThan(0.7);
  });

  test("a fuse seen blown with dim lamps behind it: the fuse", () => {
    const { parts, suspects } = diagnosed("whimbrel-four-speed", [
      ...fourDead,
      light("F7.out", "G1.-", "4", "dim"),
      light("X3:1", "G1.-", "4", "dim"),
      look("F7", "blown"),
    ]);
    expect(parts[0]?.part).toBe("F7");
    expect(suspects[0]?.fault).toMatch(/F7:blown/);
  });

  test("a pin burnt in the motor's plug: good behind the plug, and the motor runs on fused leads", () => {
    const { parts } = diagnosed("whimbrel-four-speed", [
      ...fourDead,
      volts("X3:1", "4", 12.3),
      volts("X3:2", "4", 0.1),
      { ...fusedLeads, seen: "normal" },
      { test: "ohms", red: "M1.+", black: "M1.-", key: "off", unplugged: ["X3"], ohms: 0.3 },
    ]);
    expect(parts[0]?.part).toBe("X3");
    expect(parts[0]?.p).toBeGreaterThan(0.8);
  });

  test("it quits hot, with feed, ground and command good while it is dead: the control", () => {
    const { settings } = shippedEngine("whimbrel-pwm-low").netlist.circuit;
    const [off = "0", ...speeds] = settings;
    const quits: Reading[] = speeds.map((setting) => ({
      test: "airflow",
      heard: true,
      key: "run",
      setting,
      seen: "none",
      pattern: "only-hot",
    }));
    const top = speeds.at(-1) ?? off;
    const failing = { state: "failing", temperature: "hot" } as const;
    const command = shippedEngine("whimbrel-pwm-low").table({ key: "run", setting: top });
    const node = shippedEngine("whimbrel-pwm-low").netlist.nodeOf.get("X4:3") ?? -1;
    const { parts, suspects, conflicts } = diagnosed("whimbrel-pwm-low", [
      ...heard({ [off]: "none" }),
      ...quits,
      { ...volts("X3:1", top, 12.4), state: "working" },
      { ...light("X4:1", "G1.-", top, "bright"), ...failing },
      { ...light("X4:2", "G1.+", top, "bright"), ...failing },
      { ...volts("X4:3", top, Number(command.voltsAt(0, 0, node).toFixed(2))), ...failing },
      { test: "volts", red: "X3:1", black: "X3:2", key: "run", setting: top, volts: 0.02, ...failing },
      { ...fusedLeads, seen: "normal", ...failing },
    ]);
    expect(parts[0]?.part).toBe("A1");
    expect(suspects.find(({ repair }) => repair.parts[0] === "A1")?.modes).toEqual(["thermal"]);
    expect(conflicts).toEqual([]);
  });

  test("it fades with the motor, and smells burnt: the motor or its hot joint", () => {
    const { parts } = diagnosed("whimbrel-four-speed", [
      ...heard({ off: "none" }),
      ...fading,
      { test: "smell", key: "run", setting: "4", seen: "burnt" },
      { test: "amps", around: "M1", key: "run", setting: "4", amps: 7, state: "failing" },
    ]);
    const motorOrJoint = parts.filter(({ part }) => part === "M1" || part === "X3");
    expect(["M1", "X3"]).toContain(parts[0]?.part);
    expect(motorOrJoint.reduce((sum, { p }) => sum + p, 0)).toBeGreaterThan(0.6);
  });

  test("it fades while the motor sounds and draws right: ice, or the duct", () => {
    const { parts, suspects } = diagnosed("whimbrel-four-speed", [
      ...heard({ off: "none" }),
      ...fading,
      { test: "listen", key: "run", setting: "4", seen: "quiet", state: "failing" },
      { test: "volts", red: "X3:1", black: "X3:2", key: "run", setting: "4", volts: 11.9, state: "failing" },
      { test: "amps", around: "M1", key: "run", setting: "4", amps: 15, state: "failing" },
    ]);
    expect(parts[0]?.part).toBe("CAR");
    expect(["iced", "duct-blocked"]).toContain(suspects[0]?.modes[0]);
  });
});

/** Every speed dead; feed at the speed switch's common, and none at any output in its own setting. */
function switchDead(id: string): Reading[] {
  const { circuit } = shippedEngine(id).netlist;
  const part = circuit.parts.find((own) => own.kind === "selector");
  if (part?.kind !== "selector") throw new Error("no speed switch");
  const pinOf = (terminal: string): string => {
    for (const { id: plug, pins } of circuit.connectors)
      for (const [pin, own] of Object.entries(pins))
        if (own === `${part.id}.${terminal}`) return `${plug}:${pin}`;
    return `${part.id}.${terminal}`;
  };
  const [off = "off", ...speeds] = circuit.settings;
  return [
    ...heard(Object.fromEntries([off, ...speeds].map((setting) => [setting, "none"]))),
    volts(pinOf(part.common), speeds.at(-1) ?? "", 12.4),
    ...speeds.flatMap((setting) =>
      (part.closes[setting] ?? []).map((output) => volts(pinOf(output), setting, 0)),
    ),
  ];
}
