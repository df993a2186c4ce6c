// Faults the fleet draws beside the engine's catalogue, with severities and behaviour of their own. Some have since
// joined the catalogue. Weights are shares of all complaints (common practice, no source).

import type { Chance } from "../chance/chance";
import { loadPinsOf } from "../circuit/plugs";
import { type Fault, placeFault } from "../fault/fault";
import type { FaultName } from "../fault/faultId";
import { theCar } from "../fault/repair";
import type { Change } from "../solve/netlist/change";
import type { Netlist } from "../solve/netlist/netlist";
import { setupState } from "../solve/netlist/setup";
import { nominalValues } from "../solve/netlist/values";
import { PointSolver } from "../solve/pointSolver";
import { type FaultBehaviour, type HiddenFault, plainBehaviour } from "./hiddenFault";

/** A fault that can be drawn: how often it is met, and how one is made. */
export interface TradeFault {
  readonly mode: string;
  readonly weight: number;
  readonly make: (chance: Chance) => HiddenFault;
}

const named = (where: string, mode: string, value: number | null = null): FaultName => ({
  where,
  mode,
  value,
});

function placed(netlist: Netlist, names: readonly FaultName[]): Fault {
  const fault = placeFault(netlist, names);
  if (!fault.ok) throw new Error(JSON.stringify(fault.problems));
  return fault.value;
}

/** A fault made of changes under a name of its own. */
const made = (name: FaultName, part: string, changes: readonly Change[]): Fault => ({
  names: [name],
  parts: [part],
  changes,
  presentShare: 1,
});

const hidden = (kind: string, fault: Fault, behaviour: Partial<FaultBehaviour> = {}): HiddenFault => ({
  kind,
  fault,
  behaviour: { ...plainBehaviour, ...behaviour },
});

/** Ohms of a bad contact, log-uniform. */
const badContact = (chance: Chance): number => Number(chance.logBetween(0.25, 30).toPrecision(4));

function switchFaults(netlist: Netlist): TradeFault[] {
  return netlist.circuit.parts.flatMap((part): TradeFault[] => {
    if (part.kind !== "selector") return [];
    const common = `${part.id}.${part.common}`;
    const settings = part.settings ?? netlist.circuit.settings;
    return [
      {
        mode: "common open",
        weight: 0.012,
        make: () => hidden("switch", placed(netlist, [named(common, "open")])),
      },
      {
        mode: "common high",
        weight: 0.01,
        make: (chance) => hidden("switch", placed(netlist, [named(common, "high", badContact(chance))])),
      },
      {
        mode: "knob turns",
        weight: 0.008,
        make: (chance) => {
          const standsAt = 1 + settings.indexOf(chance.pick(settings));
          return hidden("switch", placed(netlist, [named(part.id, "knob-turns", standsAt)]));
        },
      },
    ];
  });
}

function controlFaults(netlist: Netlist): TradeFault[] {
  return netlist.modules.map(({ part }, module) => ({
    mode: "thermal",
    weight: 0.025,
    make: () =>
      hidden(
        "comes and goes",
        made(named(part.id, "thermal"), part.id, [{ type: "module", module, held: "dead" }]),
        { waitsFor: "heat" },
      ),
  }));
}

function motorFaults(netlist: Netlist): TradeFault[] {
  return netlist.motors.flatMap(({ part: { id } }): TradeFault[] => [
    {
      mode: "fades hot",
      weight: 0.015,
      make: (chance) => {
        const worn = placed(netlist, [
          named(id, "worn-brushes", Number(chance.logBetween(0.6, 3).toPrecision(3))),
        ]);
        return hidden("comes and goes", made(named(id, "fades-hot"), id, worn.changes), { waitsFor: "heat" });
      },
    },
    {
      mode: "vent whistle",
      weight: 0.012,
      make: () => hidden("mechanical", placed(netlist, [named(id, "vent-whistle")])),
    },
    {
      mode: "scrape",
      weight: 0.012,
      make: () => hidden("mechanical", placed(netlist, [named(id, "scrape")])),
    },
  ]);
}

/** Every motor's air, at a share of what its speed should give. */
const lessAir = (netlist: Netlist, times: number): Change[] =>
  netlist.motors.map((_, motor) => ({ type: "airflow", motor, times }));

function carFaults(netlist: Netlist): TradeFault[] {
  if (netlist.motors.length === 0) return [];
  return [
    {
      mode: "iced",
      weight: 0.008,
      make: (chance) =>
        hidden(
          "comes and goes",
          made(named(theCar, "iced"), theCar, lessAir(netlist, chance.between(0.1, 0.5))),
          { waitsFor: "time" },
        ),
    },
    {
      mode: "duct blocked",
      weight: 0.006,
      make: (chance) => {
        const times = Number(chance.between(0.15, 0.6).toPrecision(3));
        return hidden("mechanical", placed(netlist, [named(theCar, "duct-blocked", times)]));
      },
    },
  ];
}

/** A burnt socket of a fuse or a relay: the wire that ends there has to be terminated again. */
function socketFaults(netlist: Netlist): TradeFault[] {
  const { parts, wires } = netlist.circuit;
  const sockets = wires.flatMap(({ id, from, to }) =>
    [["from", from] as const, ["to", to] as const].flatMap(([end, terminal]) => {
      const [owner = "", contact = ""] = terminal.split(".");
      const kind = parts.find((part) => part.id === owner)?.kind;
      const carries = kind === "fuse" || (kind === "relay" && (contact === "30" || contact === "87"));
      return carries && !netlist.points.pinOnTerminal.has(terminal) ? [{ id, end, owner, contact }] : [];
    }),
  );
  return sockets.map(({ id, end, owner, contact }) => ({
    mode: "socket high",
    weight: 0.016 / sockets.length,
    make: (chance) => {
      const ohms = badContact(chance);
      const { changes } = placed(netlist, [named(`${id}/${end}`, "high", ohms)]);
      return hidden("socket", made(named(`${owner}/${contact}`, "high", ohms), owner, changes), {
        visible: chance.uniform() < 0.5 ? new Map([[owner, "melted"]]) : new Map(),
      });
    },
  }));
}

/** A fuse stands this many times its rating for a while (ISO 8820-3 gives an hour at 1.1, minutes at 1.35). */
const fuseStands = 1.35;

/** A short that pulls the battery below this is no bump but a fire. */
const leastBatteryVolts = 11;

/** Whether a change leaves every fuse in and the battery up on every setting. */
function fusesStay(netlist: Netlist, changes: readonly Change[]): boolean {
  const solver = new PointSolver(netlist);
  const values = nominalValues(netlist);
  return netlist.circuit.settings.every((setting) => {
    const { amps, volts } = solver.solve(values, setupState(netlist, { key: "run", setting }), changes);
    if ((volts[netlist.battery.positive] ?? 0) < leastBatteryVolts) return false;
    return netlist.circuit.parts.every(
      (part) =>
        part.kind !== "fuse" ||
        Math.abs(amps[netlist.branchOf.get(part.id) ?? -1] ?? 0) < fuseStands * part.amps,
    );
  });
}

/** A wire rubbed bare that touches the body over bumps, where that blows no fuse. */
function chafedWires(netlist: Netlist): TradeFault[] {
  const faults = netlist.circuit.wires.flatMap(({ id }) => {
    const short = placeFault(netlist, [named(id, "to-ground")]);
    return short.ok && fusesStay(netlist, short.value.changes) ? [short.value] : [];
  });
  return faults.map((fault) => ({
    mode: "chafed",
    weight: 0.01 / faults.length,
    make: () =>
      hidden(
        "comes and goes",
        made(named(fault.parts[0] ?? "", "chafed"), fault.parts[0] ?? "", fault.changes),
        { waitsFor: "bumps" },
      ),
  }));
}

/** Pairs that heat and water make: a pack or a motor with its plug, a wet control with its plug, a seized motor. */
function pairFaults(netlist: Netlist): TradeFault[] {
  const found: TradeFault[] = [];
  const pair = (mode: string, weight: number, make: TradeFault["make"]) =>
    void found.push({ mode, weight, make });
  for (const part of netlist.circuit.parts) {
    const pins = loadPinsOf(netlist.circuit, part.id);
    if (pins.length === 0) continue;
    const marks = (pin: string, word: string) => ({
      visible: new Map([
        [part.id, word],
        [pin.slice(0, pin.indexOf(":")), word],
      ]),
    });
    if (part.kind === "resistor")
      pair("pack and plug", 0.035, (chance) => {
        const element = chance.pick(part.elements);
        const burnt = named(`${part.id}.${element.id}`, "open");
        const pin = chance.pick(pins);
        const melted = named(pin, "high", badContact(chance));
        const names = chance.uniform() < 0.6 ? [burnt, melted] : [melted, burnt];
        return hidden("pair", placed(netlist, names), marks(pin, "melted"));
      });
    if (part.kind === "module") {
      pair("wet control and plug", 0.012, (chance) => {
        const mode = chance.pick(["dead", "full-on"]);
        const pin = chance.pick(pins);
        const wet = named(pin, "high", badContact(chance));
        return hidden("pair", placed(netlist, [named(part.id, mode), wet]), marks(pin, "wet"));
      });
      for (const motor of netlist.motors)
        pair("seized and control", 0.01, () =>
          hidden("pair", placed(netlist, [named(motor.part.id, "seized"), named(part.id, "dead")])),
        );
    }
  }
  return found;
}

/** Every fault of this list that a circuit can have. */
export const tradeFaults = (netlist: Netlist): TradeFault[] => [
  ...switchFaults(netlist),
  ...controlFaults(netlist),
  ...motorFaults(netlist),
  ...carFaults(netlist),
  ...socketFaults(netlist),
  ...chafedWires(netlist),
  ...pairFaults(netlist),
];

/** Faults nobody lists: two outputs that touch, a shorted coil of a pack, and two failures that have no common cause. */
export function unlistedFaults(netlist: Netlist): TradeFault[] {
  const { parts, connectors } = netlist.circuit;
  const node = (point: string): number => netlist.nodeOf.get(point) ?? -1;
  const bridge = (one: string, other: string): Change => ({
    type: "bridge",
    a: node(one),
    b: node(other),
    ohms: 0.02,
  });
  const outside = (fault: Fault): HiddenFault => hidden("outside the catalogue", fault);
  const found: TradeFault[] = [];
  for (const part of parts) {
    if (part.kind === "selector") {
      const outputs = [...new Set(Object.values(part.closes).flat())];
      if (outputs.length > 1)
        found.push({
          mode: "outputs touch",
          weight: 1,
          make: (chance) => {
            const one = chance.pick(outputs);
            const other = chance.pick(outputs.filter((own) => own !== one));
            return outside(
              made(named(part.id, "outputs-touch"), part.id, [
                bridge(`${part.id}.${one}`, `${part.id}.${other}`),
              ]),
            );
          },
        });
    }
    if (part.kind === "resistor")
      found.push({
        mode: "coil shorted",
        weight: 1,
        make: (chance) => {
          const coil = chance.pick(part.elements.filter((element) => !("thermalLink" in element)));
          return outside(
            made(named(`${part.id}.${coil.id}`, "shorted"), part.id, [
              bridge(`${part.id}.${coil.from}`, `${part.id}.${coil.to}`),
            ]),
          );
        },
      });
  }
  const pins = connectors.flatMap(({ id, pins: own }) => Object.keys(own).map((pin) => `${id}:${pin}`));
  if (pins.length > 3)
    found.push({
      mode: "two failures",
      weight: 1,
      make: (chance) => {
        const one = chance.pick(pins);
        const other = chance.pick(
          pins.filter((pin) => pin.slice(0, pin.indexOf(":")) !== one.slice(0, one.indexOf(":"))),
        );
        return outside(placed(netlist, [named(one, "open"), named(other, "high", badContact(chance))]));
      },
    });
  return found;
}
