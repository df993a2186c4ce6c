import { describe, expect, test } from "@jest/globals";
import { problemText } from "../../problem/problem";
import { shippedNetlist } from "../../testing/shippedCircuit";
import { lampEnds, type Setup, setupKey, setupProblems, setupState, withDefaults } from "./setup";

const netlist = shippedNetlist("whimbrel-four-speed");
const closed = (setup: Setup, branch: string): number =>
  setupState(netlist, setup).closed[netlist.branchOf.get(branch) ?? -1] ?? -1;

describe("a set-up", () => {
  test("has the format's defaults: key off, engine off, the first setting", () => {
    expect(withDefaults(netlist, {})).toMatchObject({
      key: "off",
      engine: false,
      setting: "off",
      unplugged: [],
    });
  });

  test("closes the switch's own contact and no other, and the key switch only in its positions", () => {
    const at = (setting: string, contact: string) => closed({ key: "run", setting }, `S2.${contact}`);
    for (const [setting, contact] of Object.entries({ "1": "L1", "2": "L2", "3": "L3", "4": "H" }))
      for (const other of ["L1", "L2", "L3", "H"]) expect(at(setting, other)).toBe(other === contact ? 1 : 0);
    for (const [key, on] of [
      ["off", 0],
      ["acc", 0],
      ["run", 1],
    ] as const)
      expect(closed({ key }, "S1.15")).toBe(on);
  });

  test("removes a plug's pins, a fuse, and the part a lamp replaces from the circuit", () => {
    expect(closed({}, "X5:4")).toBe(1);
    expect(closed({ unplugged: ["X5"] }, "X5:4")).toBe(0);
    expect(closed({ unplugged: ["F7"] }, "F7")).toBe(0);
    expect(closed({ lampFor: "M1" }, "M1")).toBe(0);
    expect(setupState(netlist, { lampFor: "M1" }).lamp).not.toBeNull();
  });

  test("uses the battery at rest, charging with the engine, or disconnected", () => {
    expect(setupState(netlist, { key: "run" }).source).toBe("resting");
    expect(setupState(netlist, { key: "run", engine: true }).source).toBe("charging");
    const off = setupState(netlist, {}, true);
    expect(off.source).toBe("disconnected");
    expect(off.closed[netlist.battery.branch]).toBe(0);
  });

  test("is the same however it is written", () => {
    const one: Setup = { key: "run", setting: "2", unplugged: ["X5", "X3"], bridged: [["G1.+", "M1.+"]] };
    const other: Setup = {
      bridged: [["M1.+", "G1.+"]],
      unplugged: ["X3", "X5"],
      setting: "2",
      key: "run",
      engine: false,
    };
    expect(setupKey(netlist, one)).toBe(setupKey(netlist, other));
    expect(setupKey(netlist, {})).toBe(setupKey(netlist, { key: "off", setting: "off" }));
    expect(setupKey(netlist, one)).not.toBe(setupKey(netlist, { ...one, setting: "3" }));
  });

  test("moves a second switch by name, and leaves it at its first position by default", () => {
    const rear = shippedNetlist("dunlin-rear-blower");
    const own = rear.circuit.parts.find((part) => part.kind === "selector" && part.settings);
    if (own?.kind !== "selector") throw new Error("no switch of its own");
    const [rest = "", on = ""] = own.settings ?? [];
    const contacts = (setup: Setup) =>
      rear.branches.flatMap((branch, index) =>
        branch.control?.by === "selector" && branch.control.part === own.id
          ? [setupState(rear, setup).closed[index]]
          : [],
      );
    expect(contacts({ key: "run" })).toEqual(contacts({ key: "run", selectors: { [own.id]: rest } }));
    expect(contacts({ key: "run", selectors: { [own.id]: on } })).toContain(1);
  });
});

describe("the load lamp's leads", () => {
  test("go to the plug's harness side where there is one", () => {
    expect(lampEnds(netlist, "M1")).toEqual(["X3:1", "X3:2"]);
    expect(lampEnds(netlist, "F7")).toEqual(["F7.in", "F7.out"]);
    expect(lampEnds(netlist, "R1")).toBeNull();
    expect(lampEnds(netlist, "Q9")).toBeNull();
  });
});

describe("an impossible set-up is refused by its place", () => {
  test.each<[Setup, RegExp]>([
    [{ engine: true }, /^engine: the engine runs only with key "run", got "off"$/],
    [{ engine: true, key: "acc" }, /^engine: .*got "acc"$/],
    [{ setting: "9" }, /^setting: unknown setting "9", expected one of off, 1, 2, 3, 4$/],
    [{ selectors: { S9: "1" } }, /^selectors\.S9: no selector "S9"$/],
    [{ selectors: { S2: "7" } }, /^selectors\.S2: unknown setting "7"/],
    [{ unplugged: ["X5", "R1"] }, /^unplugged\.1: expected a connector, fuse or relay, got "R1"$/],
    [{ bridged: [["G1.+", "M1.x"]] }, /^bridged\.0\.1: no point "M1\.x"$/],
    [{ lampFor: "R1" }, /^lampFor: expected a motor or a fuse, got "R1"$/],
  ])("%j", (setup, message) => {
    expect(setupProblems(netlist, setup).map(problemText).join("\n")).toMatch(message);
  });

  test("and a valid one has no problems", () => {
    const good: Setup = {
      key: "run",
      engine: true,
      setting: "4",
      selectors: { S2: "2" },
      unplugged: ["X3", "K3", "F7"],
      bridged: [["G1.+", "M1.+"]],
      lampFor: "M1",
    };
    expect(setupProblems(netlist, good)).toEqual([]);
  });
});
