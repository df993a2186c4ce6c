import type { Part } from "../circuit/parts/index";
import type { Netlist } from "../solve/netlist";
import { type Fault, placeFault } from "./fault";
import { type FaultName, familyId, faultId } from "./faultId";
import { modeWeights, pairWeights, pinClass, unknownShare, type WeightClass } from "./prior";

/** One fault the engine considers, at one size. */
export interface CatalogueEntry {
  readonly id: string;
  /** The id without sizes: one suspect, however many sizes it is tried at. */
  readonly family: string;
  readonly fault: Fault;
  /** Probability before anything is seen; the catalogue and `unknown` sum to 1. */
  readonly prior: number;
}

/** Sizes a continuous fault is tried at: added ohms of a contact, of a wire, and so on. */
const sizes: Readonly<Record<string, readonly number[]>> = {
  high: [0.1, 0.3, 1, 3, 12, 100],
  "wire high": [0.2, 1, 6, 100],
  loose: [0.5],
  tight: [1.3, 1.6, 2.1, 3],
  "shorted-turns": [0.75, 0.5],
  "worn-brushes": [0.25, 0.7, 2],
  low: [11.6, 10.8, 9.8],
  "filter-blocked": [0.75, 0.5, 0.3],
};

interface Draft {
  readonly names: readonly FaultName[];
  readonly weight: number;
}

function drafts(where: string, modes: Readonly<Record<string, number>>, kind = ""): Draft[] {
  return Object.entries(modes).flatMap(([mode, weight]) =>
    sized(where, mode, weight, sizes[`${kind} ${mode}`] ?? sizes[mode]),
  );
}

function sized(where: string, mode: string, weight: number, values?: readonly number[]): Draft[] {
  if (!values) return [{ names: [{ where, mode, value: null }], weight }];
  return values.map((value) => ({ names: [{ where, mode, value }], weight: weight / values.length }));
}

/** Class of the branches of a part that can open, corrode or come loose. */
const branchClass: Partial<Record<Part["kind"], WeightClass>> = {
  ignition: "switchContact",
  selector: "switchContact",
  ground: "ground",
  fuse: "fuse",
};

function partDrafts(netlist: Netlist, part: Part): Draft[] {
  switch (part.kind) {
    case "motor":
      return drafts(part.id, modeWeights.motor);
    case "battery":
      return drafts(part.id, modeWeights.battery);
    case "relay":
      return [
        ...drafts(part.id, modeWeights.relayCoil),
        ...ownBranches(netlist, part.id)
          .filter((id) => id !== `${part.id}.coil`)
          .flatMap((id) => drafts(id, modeWeights.relayContact)),
      ];
    case "resistor":
      return part.elements.flatMap((element) =>
        drafts(`${part.id}.${element.id}`, "thermalLink" in element ? modeWeights.link : modeWeights.element),
      );
    case "inline":
      return part.pins.flatMap((pin) => drafts(`${part.id}:${pin}`, modeWeights.otherPin));
    default: {
      const kind = branchClass[part.kind];
      return kind ? ownBranches(netlist, part.id).flatMap((id) => drafts(id, modeWeights[kind])) : [];
    }
  }
}

const ownBranches = (netlist: Netlist, owner: string): string[] =>
  netlist.branches.filter((branch) => branch.owner === owner).map(({ id }) => id);

function single(netlist: Netlist): Draft[] {
  const { circuit } = netlist;
  return [
    ...circuit.parts.flatMap((part) => partDrafts(netlist, part)),
    ...circuit.connectors.flatMap(({ id, pins }) =>
      Object.keys(pins).flatMap((pin) => {
        const where = `${id}:${pin}`;
        return drafts(where, modeWeights[pinClass(netlist, where)]);
      }),
    ),
    ...circuit.wires.flatMap(({ id }) => drafts(id, modeWeights.wire, "wire")),
    ...(netlist.motors.length > 0 ? drafts("CAR", modeWeights.car) : []),
  ];
}

const plain = (where: string, mode: string, value: number | null = null): FaultName => ({
  where,
  mode,
  value,
});

/** A cause with the part it killed: tight motor and cooked element or pin, short or seizure and fuse. */
function pairs(netlist: Netlist): Draft[] {
  const { circuit } = netlist;
  const found: Draft[] = [];
  const tight = [1.4, 2];
  for (const { part: motor } of netlist.motors) {
    const withTight = (victim: FaultName, weight: number): void => {
      for (const times of tight)
        found.push({
          names: [plain(motor.id, "tight", times), victim],
          weight: weight / tight.length,
        });
    };
    for (const part of circuit.parts) {
      if (part.kind !== "resistor") continue;
      for (const element of part.elements) {
        const link = "thermalLink" in element;
        withTight(
          plain(`${part.id}.${element.id}`, "open"),
          link ? pairWeights.tightAndLink : pairWeights.tightAndElement,
        );
      }
    }
    for (const { id, pins } of circuit.connectors) {
      for (const pin of Object.keys(pins)) {
        const where = `${id}:${pin}`;
        if (pinClass(netlist, where) === "loadPin")
          withTight(plain(where, "high", 1), pairWeights.tightAndPin);
      }
    }
    for (const fuse of fusesFeeding(netlist, netlist.branchOf.get(motor.id)))
      found.push({
        names: [plain(motor.id, "seized"), plain(fuse, "blown")],
        weight: pairWeights.seizedAndFuse,
      });
  }
  for (const { id } of circuit.wires) {
    const own = fusesFeeding(netlist, netlist.branchOf.get(`${id}/from`));
    for (const fuse of own.slice(0, 1))
      found.push({
        names: [plain(id, "to-ground"), plain(fuse, "blown")],
        weight: pairWeights.shortAndFuse,
      });
  }
  return found;
}

/**
 * Fuses between the battery and a branch, the nearest first: those whose removal leaves the branch
 * without a path from the feed, switches and relays taken as closed and the reference left out.
 */
function fusesFeeding(netlist: Netlist, target: number | undefined): string[] {
  const branch = target === undefined ? undefined : netlist.branches[target];
  if (!branch) return [];
  const steps = distances(netlist, branch.a);
  return netlist.circuit.parts
    .filter((part) => part.kind === "fuse")
    .map(({ id }) => ({ id, index: netlist.branchOf.get(id) ?? -1 }))
    .filter(({ index }) => !reachable(netlist, branch.a, index))
    .sort((one, other) => nearness(netlist, steps, one.index) - nearness(netlist, steps, other.index))
    .map(({ id }) => id);
}

const nearness = (netlist: Netlist, steps: ReadonlyMap<number, number>, index: number): number =>
  steps.get(netlist.branches[index]?.b ?? -2) ?? Number.POSITIVE_INFINITY;

/** Loads end a search: a fuse feeds what is up to them, not what lies behind their far side. */
function isLoad(netlist: Netlist, index: number): boolean {
  const spread = netlist.branches[index]?.spread;
  return spread === "coil" || spread === "winding" || spread === "element";
}

function distances(netlist: Netlist, start: number, without = -1): Map<number, number> {
  const steps = new Map([[start, 0]]);
  const queue = [start];
  for (const node of queue) {
    netlist.branches.forEach((branch, index) => {
      if (index === without || isLoad(netlist, index)) return;
      const other = branch.a === node ? branch.b : branch.b === node ? branch.a : null;
      if (other === null || other < 0 || steps.has(other)) return;
      steps.set(other, (steps.get(node) ?? 0) + 1);
      queue.push(other);
    });
  }
  return steps;
}

function reachable(netlist: Netlist, from: number, without: number): boolean {
  return distances(netlist, from, without).has(netlist.battery.positive);
}

/**
 * Every fault of a circuit with its prior: one entry a size, made from the circuit's own parts, pins
 * and wires, and the pairs of cause and victim.
 */
export function catalogue(netlist: Netlist): CatalogueEntry[] {
  const placed = [...single(netlist), ...pairs(netlist)].flatMap(({ names, weight }) => {
    const fault = placeFault(netlist, names);
    return fault.ok ? [{ fault: fault.value, weight }] : [];
  });
  const total = placed.reduce((sum, { weight }) => sum + weight, 0);
  return placed.map(({ fault, weight }) => ({
    id: faultId(fault.names),
    family: familyId(fault.names),
    fault,
    prior: ((1 - unknownShare) * weight) / total,
  }));
}
