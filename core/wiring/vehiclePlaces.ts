import type { Circuit } from "../circuit/circuit";
import type { Netlist } from "../solve/netlist/netlist";
import { operatingPoint } from "../solve/operatingPoint";
import type { PinRole, PlacedCircuit } from "./candidate";
import { type PartPlace, type PlugPlace, partPlaces, type RepairPlace } from "./place";
import type { SeenCar } from "./seenCar";

/** A circuit with its settings by number: `0` is off, and the last is the strongest. */
export function numberedSettings(circuit: Circuit): Circuit {
  const numberOf = new Map(circuit.settings.map((setting, at) => [setting, String(at)]));
  const renamed = <V>(own: Readonly<Record<string, V>>): Record<string, V> =>
    Object.fromEntries(
      Object.entries(own).map(([setting, value]) => [numberOf.get(setting) ?? setting, value]),
    );
  return {
    ...circuit,
    settings: [...numberOf.values()],
    parts: circuit.parts.map((part) => {
      if (part.kind === "selector" && !part.settings) return { ...part, closes: renamed(part.closes) };
      return part.kind === "head" ? { ...part, commands: renamed(part.commands) } : part;
    }),
  };
}

const plugOfKind: Readonly<Partial<Record<Circuit["parts"][number]["kind"], PlugPlace>>> = {
  resistor: "pack-plug",
  module: "module-plug",
  selector: "switch-plug",
  head: "panel-plug",
};

const placeOfKind: Readonly<Partial<Record<Circuit["parts"][number]["kind"], RepairPlace>>> = {
  resistor: "pack",
  module: "module",
  selector: "switch",
  head: "panel",
  relay: "relay",
  fuse: "fuse",
  battery: "battery",
  ground: "ground",
  ignition: "feed",
};

/** A wire or joint at less than this share of the battery's volts is on the ground side. */
const groundShare = 0.5;

/**
 * A whole circuit as it is found by somebody who has no diagram: its plugs, its parts and where each is repaired.
 * @param netlist of a circuit whose settings are numbers
 */
export function vehiclePlaces(netlist: Netlist): PlacedCircuit {
  const { circuit } = netlist;
  const top = circuit.settings.at(-1) ?? "0";
  const { volts, amps } = operatingPoint(netlist, { key: "run", setting: top }, []);
  const full = volts[`${netlist.battery.id}.+`] ?? 12;
  const sideOf = (point: string): "feed" | "ground" =>
    (volts[point] ?? full) < groundShare * full ? "ground" : "feed";
  const motors = circuit.parts.filter(({ kind }) => kind === "motor").map(({ id }) => id);
  const repairPlace = new Map<string, RepairPlace>();
  const parts = new Map<PartPlace, string>();
  for (const part of circuit.parts) {
    const { id, kind } = part;
    const place: RepairPlace =
      kind === "motor"
        ? id === motors[0]
          ? "motor"
          : "motor-2"
        : kind === "inline"
          ? sideOf(`${id}.${part.kind === "inline" ? part.pins[0] : ""}a`)
          : (placeOfKind[kind] ?? "feed");
    repairPlace.set(id, place);
    const found = partPlaces.find((own) => own === place);
    if (found && !parts.has(found)) parts.set(found, id);
  }
  const plugs = new Map<PlugPlace, { connector: string; pins: PinRole[] }>();
  for (const { id, pins } of circuit.connectors) {
    const owner = Object.values(pins)[0]?.split(".")[0] ?? "";
    const kind = circuit.parts.find((part) => part.id === owner)?.kind;
    const place =
      kind === "motor" ? (owner === motors[0] ? "motor-plug" : "motor-plug-2") : kind && plugOfKind[kind];
    if (!place) {
      repairPlace.set(id, kind === "relay" ? "relay" : "feed");
      continue;
    }
    repairPlace.set(id, place);
    if (plugs.has(place)) continue;
    plugs.set(place, {
      connector: id,
      pins: Object.entries(pins).map(([pin, terminal]): PinRole => {
        const wire = circuit.wires.find(({ from, to }) => from === terminal || to === terminal)?.id ?? "";
        return {
          role: terminal,
          point: `${id}:${pin}`,
          terminal,
          wire,
          heavy: Math.abs(amps[wire] ?? 0) > 1 || kind === "resistor",
        };
      }),
    });
  }
  for (const { id, from, to } of circuit.wires) {
    const isCommand = [from, to].some((end) => end.endsWith(".cmd"));
    repairPlace.set(id, isCommand ? "command" : sideOf(from));
  }
  const ofKind = (kind: Circuit["parts"][number]["kind"]): string[] =>
    circuit.parts.flatMap((part) => (part.kind === kind ? [part.id] : []));
  return {
    circuit,
    plugs,
    parts,
    fuses: ofKind("fuse"),
    grounds: ofKind("ground"),
    repairPlace,
  };
}

/** What can be seen of a vehicle without opening anything. */
export function seenOf(circuit: Circuit): SeenCar {
  const has = (kind: Circuit["parts"][number]["kind"]): boolean =>
    circuit.parts.some((part) => part.kind === kind);
  const motors = circuit.parts.filter(({ kind }) => kind === "motor").length;
  return {
    controls: has("head") ? "buttons" : "dial",
    speeds: circuit.settings.length - 1,
    speedPart: has("resistor") ? "pack" : "module",
    blowers: motors > 1 ? 2 : 1,
    ...(circuit.steering ? { steering: circuit.steering } : {}),
  };
}
