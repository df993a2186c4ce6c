// Control modules and climate panels against the closed forms of the averaged converter: motor volts = D (V30 − V31) −
// D I R for a PWM stage and min(D Vs, Vs − I R) for a linear one (the format's own definition).
import { describe, expect, test } from "@jest/globals";
import { catalogue } from "../../fault/catalogue";
import { faultFromId } from "../../fault/fault";
import { shippedIds, shippedNetlist } from "../../testing/shippedCircuit";
import type { Netlist } from "../netlist/netlist";
import { type Setup, setupState } from "../netlist/setup";
import { nominalValues } from "../netlist/values";
import { operatingPoint } from "../operatingPoint";
import { PointSolver } from "../pointSolver";

const withFault = (netlist: Netlist, setup: Setup, fault: string) => {
  const placed = faultFromId(netlist, fault);
  if (!placed.ok) throw new Error(fault);
  return operatingPoint(netlist, setup, placed.value.changes);
};

const electronic = shippedIds.filter((id) => shippedNetlist(id).modules.length > 0);

describe.each(electronic)("the control module of %s", (id) => {
  const netlist = shippedNetlist(id);
  const [module] = netlist.modules;
  if (!module) throw new Error(id);
  const { part } = module;
  const { settings } = netlist.circuit;

  test("settles, under every fault, at the duty its own command asks for", () => {
    const solver = new PointSolver(netlist);
    const values = nominalValues(netlist);
    const state = setupState(netlist, { key: "run", setting: settings.at(-1) ?? "off" });
    const device = netlist.devices.findIndex(({ kind }) => kind === "module");
    const [zero, full] = part.commandVolts;
    let checked = 0;
    for (const { id: fault, fault: placed } of catalogue(netlist)) {
      if (placed.changes.some(({ type }) => type === "module")) continue;
      const solved = solver.solve(values, state, placed.changes);
      if (solved.on[device] === 0 || solved.buzzing.includes(1)) continue;
      const at = (node: number): number => (node < 0 ? 0 : (solved.volts[node] ?? 0));
      const asked = Math.min(1, Math.max(0, (at(module.command) - at(module.ground) - zero) / (full - zero)));
      expect({ fault, off: Math.abs(asked - (solved.duty[0] ?? -1)) < 1e-6 }).toEqual({ fault, off: true });
      checked += 1;
    }
    expect(checked).toBeGreaterThan(150);
  });

  test.each(settings.slice(1))("gives the motor what its definition says on %s", (setting) => {
    const solved = new PointSolver(netlist).solve(
      nominalValues(netlist),
      setupState(netlist, { key: "run", setting }),
      [],
    );
    const at = (terminal: string): number => {
      const node = netlist.nodeOf.get(`${part.id}.${terminal}`) ?? -1;
      return node < 0 ? 0 : (solved.volts[node] ?? 0);
    };
    const supply = at("30") - at("31");
    const [zero, full] = part.commandVolts;
    const duty = Math.min(1, Math.max(0, (at("cmd") - at("31") - zero) / (full - zero)));
    const amps = solved.amps[netlist.motors[0]?.branch ?? 0] ?? 0;
    const motor = at("m+") - at("m-");
    expect(solved.duty[0]).toBeCloseTo(duty, 7);
    const expected =
      part.drive === "pwm"
        ? duty * supply - duty * amps * part.onOhms
        : Math.min(duty * supply, supply - amps * part.onOhms);
    expect(motor).toBeCloseTo(expected, 6);
    // The supply pin carries duty × motor amps under PWM, and all of the motor's amps in a linear module.
    expect(Math.abs(solved.amps[module.stage] ?? 0)).toBeCloseTo(
      part.drive === "pwm" ? duty * amps : amps,
      6,
    );
  });

  test("energy balances: the battery's energy becomes heat and mechanical work", () => {
    const values = nominalValues(netlist);
    const solved = new PointSolver(netlist).solve(
      values,
      setupState(netlist, { key: "run", setting: settings.at(-2) ?? "" }),
      [],
    );
    const at = (node: number): number => (node < 0 ? 0 : (solved.volts[node] ?? 0));
    let heat = 0;
    netlist.branches.forEach(({ a, b, control }, index) => {
      if (control?.by === "module" || control?.by === "head" || index === netlist.battery.branch) return;
      heat += (at(a) - at(b)) * (solved.amps[index] ?? 0);
    });
    // Power in the output stage and the freewheel diode as volts times amps; likewise the panel's output stage.
    for (const { stage, freewheel } of netlist.modules) {
      const branch = netlist.branches[stage];
      heat += (at(branch?.a ?? -1) - at(branch?.b ?? -1)) * (solved.amps[stage] ?? 0);
      heat += (at(freewheel.a) - at(freewheel.b)) * (solved.freewheel[0] ?? 0);
    }
    for (const { source } of netlist.heads) {
      const branch = netlist.branches[source];
      heat += (at(branch?.a ?? -1) - at(branch?.b ?? -1)) * (solved.amps[source] ?? 0);
    }
    const given = -at(netlist.battery.positive) * (solved.amps[netlist.battery.branch] ?? 0);
    expect(heat).toBeCloseTo(given, 6);
  });

  test("is dead without feed or ground, and full on with a shorted stage", () => {
    const top = { key: "run", setting: settings.at(-1) ?? "" } as const;
    const plug = netlist.circuit.connectors.find(({ pins }) => Object.values(pins).includes(`${part.id}.31`));
    const pin = (terminal: string): string =>
      `${plug?.id}:${Object.entries(plug?.pins ?? {}).find(([, to]) => to === `${part.id}.${terminal}`)?.[0]}`;
    expect(withFault(netlist, top, `${pin("30")}:open`).rpm.M1).toBe(0);
    expect(withFault(netlist, top, `${pin("31")}:open`).rpm.M1 ?? 9999).toBeLessThan(20);
    expect(withFault(netlist, top, `${part.id}:dead`).rpm.M1).toBe(0);
    const off = { key: "run", setting: settings[0] ?? "" } as const;
    const healthyTop = operatingPoint(netlist, top).rpm.M1 ?? 0;
    expect(operatingPoint(netlist, off).rpm.M1).toBe(0);
    expect(withFault(netlist, off, `${part.id}:full-on`).rpm.M1).toBeGreaterThan(0.97 * healthyTop);
  });

  test("stuck part-way it holds one speed; a stuck panel holds one command", () => {
    const rpm = (fault: string) =>
      settings.slice(1).map((setting) => withFault(netlist, { key: "run", setting }, fault).rpm.M1 ?? 0);
    for (const fault of [`${part.id}:stuck@0.5`, "A2:stuck@0.6"]) {
      const speeds = rpm(fault);
      expect(Math.max(...speeds) - Math.min(...speeds)).toBeLessThan(1);
      expect(speeds[0]).toBeGreaterThan(100);
    }
    expect(Math.max(...rpm("A2:dead"))).toBe(
      part.commandVolts[0] > part.commandVolts[1] ? Math.max(...rpm("A2:dead")) : 0,
    );
  });

  test("an open command wire reads 0 V at the module", () => {
    const wire = netlist.circuit.wires.find(
      ({ from, to }) => from === `${part.id}.cmd` || to === `${part.id}.cmd`,
    );
    const point = withFault(netlist, { key: "run", setting: settings.at(-1) ?? "" }, `${wire?.id}:open`);
    expect(point.volts[`${part.id}.cmd`]).toBeCloseTo(point.volts[`${part.id}.31`] ?? 1, 6);
  });

  test("with a jump lead to ground at the motor, the stage does not resist the lead", () => {
    const side = part.side === "low" ? ["M1.-", "G1.-"] : ["M1.+", "G1.+"];
    const setup: Setup = {
      key: "run",
      setting: settings[1] ?? "",
      bridged: [[side[0] ?? "", side[1] ?? ""]],
    };
    const point = operatingPoint(netlist, setup);
    expect(point.rpm.M1).toBeGreaterThan(
      0.9 * (operatingPoint(netlist, { key: "run", setting: settings.at(-1) ?? "" }).rpm.M1 ?? 0),
    );
    expect(Object.values(point.amps).every((amps) => Math.abs(amps) < 60)).toBe(true);
  });
});
