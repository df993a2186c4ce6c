import type { Part } from "../circuit/parts/index";
import { loadPinsOf } from "../circuit/plugs";
import type { Change } from "../solve/netlist/change";
import type { Netlist } from "../solve/netlist/netlist";
import { setupState } from "../solve/netlist/setup";
import { nominalValues } from "../solve/netlist/values";
import { PointSolver } from "../solve/pointSolver";
import { type Fault, placeFault } from "./fault";
import { type FaultName, faultId, suspectGroupId } from "./faultId";
import { modeWeights, pairWeights, pinClass, unknownShare, type WeightClass } from "./prior";
import { theCar } from "./repair";

/** One fault the engine considers, in one band of sizes. */
export interface CatalogueEntry {
  readonly id: string;
  /** The id without sizes: one suspect, at however many sizes it is tried. */
  readonly family: string;
  /** The fault at the middle of its bands. */
  readonly fault: Fault;
  readonly bands: readonly (Band | null)[];
  /** Probability before anything is seen; the catalogue and `unknown` sum to 1. */
  readonly prior: number;
}

/**
 * The bands in which a continuous fault is tried, by their edges. Every sampled vehicle has its own size within the
 * band, so that sixteen vehicles cover the range without holes.
 */
const edges: Readonly<Record<string, readonly number[]>> = {
  high: [0.07, 0.28, 1.1, 4.5, 20, 150],
  tight: [1.25, 1.5, 1.9, 2.4, 3.2],
  "shorted-turns": [0.42, 0.55, 0.7, 0.85],
  "worn-brushes": [0.2, 0.45, 1, 2.4],
  stuck: [0.07, 0.25, 0.5, 0.75, 0.97],
  low: [9.2, 10.2, 11, 11.7],
  "filter-blocked": [0.22, 0.36, 0.55, 0.8],
  "duct-blocked": [0.12, 0.3, 0.65],
  "fades-hot": [0.5, 1.2, 3.2],
};
/** Share of the time an intermittent fault is present. */
const looseShare = 0.55;
/** Bands of a cause that comes with a victim, and of the victim; coarser, because there are many pairs. */
const pairEdges: Readonly<Record<string, readonly number[]>> = {
  tight: [1.3, 1.75, 2.8],
  high: [0.3, 2.5, 30],
};

/** A size within a band, uniform on a log scale. */
export interface Band {
  readonly low: number;
  readonly high: number;
}

const bandsOf = (mode: string, of = edges): Band[] =>
  (of[mode] ?? []).slice(1).map((high, i) => ({ low: of[mode]?.[i] ?? high, high }));

const sizeIn = ({ low, high }: Band, share: number): number => low * (high / low) ** share;

interface Draft {
  readonly names: readonly FaultName[];
  /** Band of each name's size; null if it has none. */
  readonly bands: readonly (Band | null)[];
  readonly weight: number;
}

function drafts(where: string, modes: Readonly<Record<string, number>>): Draft[] {
  return Object.entries(modes).flatMap(([mode, weight]): Draft[] => {
    if (mode === "loose") return [{ names: [{ where, mode, value: looseShare }], bands: [null], weight }];
    const bands = bandsOf(mode);
    if (bands.length === 0) return [{ names: [{ where, mode, value: null }], bands: [null], weight }];
    return bands.map((band) => ({
      names: [{ where, mode, value: middle(band) }],
      bands: [band],
      weight: weight / bands.length,
    }));
  });
}

/** The middle of a band, as written in an id. */
const middle = (band: Band): number => Number(sizeIn(band, 0.5).toPrecision(3));

/** The class of a part's branches that can open, corrode or come loose. */
const branchClass: Partial<Record<Part["kind"], WeightClass>> = {
  ignition: "switchContact",
  ground: "ground",
  fuse: "fuse",
};

function partDrafts(netlist: Netlist, part: Part): Draft[] {
  switch (part.kind) {
    case "motor":
      return drafts(part.id, modeWeights.motor);
    case "battery":
    case "module":
    case "head":
      return drafts(part.id, modeWeights[part.kind]);
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
    case "selector":
      return [
        ...standingKnob(part.id, (part.settings ?? netlist.circuit.settings).length),
        ...drafts(`${part.id}.${part.common}`, modeWeights.switchCommon),
        ...ownBranches(netlist, part.id).flatMap((id) => drafts(id, modeWeights.switchContact)),
      ];
    default: {
      const kind = branchClass[part.kind];
      return kind ? ownBranches(netlist, part.id).flatMap((id) => drafts(id, modeWeights[kind])) : [];
    }
  }
}

/** A switch's knob that turns without its contacts, at every setting they may stand at. */
const standingKnob = (where: string, settings: number): Draft[] =>
  Array.from({ length: settings }, (_, index) => ({
    names: [{ where, mode: "knob-turns", value: index + 1 }],
    bands: [null],
    weight: modeWeights.switchKnob["knob-turns"] / settings,
  }));

/** The sockets of fuses, and those of relays that carry a load, where a wire ends without a plug. */
function sockets({ circuit, points }: Netlist): string[] {
  return circuit.parts.flatMap(({ id, kind }) => {
    const contacts = kind === "fuse" ? ["in", "out"] : kind === "relay" ? ["30", "87"] : [];
    return contacts.flatMap((contact) => {
      const terminal = `${id}.${contact}`;
      const wired = circuit.wires.some(({ from, to }) => from === terminal || to === terminal);
      return wired && !points.pinOnTerminal.has(terminal) ? [`${id}/${contact}`] : [];
    });
  });
}

/** Wires that lie behind a load, so that a short to the body blows no fuse. */
const bareWires = (netlist: Netlist): string[] =>
  netlist.circuit.wires.flatMap(({ id }) => {
    const branch = netlist.branches[netlist.branchOf.get(`${id}/from`) ?? netlist.branchOf.get(id) ?? -1];
    return branch && !distances(netlist, branch.a).has(netlist.battery.positive) ? [id] : [];
  });

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
    ...circuit.wires.flatMap(({ id }) => drafts(id, modeWeights.wire)),
    ...bareWires(netlist).flatMap((id) => drafts(id, modeWeights.bareWire)),
    ...sockets(netlist).flatMap((id) => drafts(id, modeWeights.socket)),
    ...(netlist.motors.length > 0 ? drafts(theCar, modeWeights.car) : []),
  ];
}

interface Piece {
  readonly name: FaultName;
  readonly band: Band | null;
}

const plain = (where: string, mode: string): Piece[] => [{ name: { where, mode, value: null }, band: null }];

const banded = (where: string, mode: string): Piece[] =>
  bandsOf(mode, pairEdges).map((band) => ({ name: { where, mode, value: middle(band) }, band }));

/** A cause with its victim, at every size of both. */
function paired(causes: readonly Piece[], victims: readonly Piece[], weight: number): Draft[] {
  return causes.flatMap((cause) =>
    victims.map((victim) => ({
      names: [cause.name, victim.name],
      bands: [cause.band, victim.band],
      weight: weight / (causes.length * victims.length),
    })),
  );
}

/** A cause with the part it damaged: a tight motor and a burnt-out element or pin, a short or seizure and a fuse. */
function pairs(netlist: Netlist): Draft[] {
  const { circuit } = netlist;
  const found: Draft[] = [];
  for (const { part: motor, branch } of netlist.motors) {
    const tight = banded(motor.id, "tight");
    const shares = sharesCurrent(netlist, branch);
    for (const { part } of netlist.modules)
      found.push(...paired(tight, plain(part.id, "dead"), pairWeights.tightAndModule));
    for (const part of circuit.parts) {
      if (part.kind !== "resistor") continue;
      for (const element of part.elements) {
        if (!shares.has(`${part.id}.${element.id}`)) continue;
        const weight = "thermalLink" in element ? pairWeights.tightAndLink : pairWeights.tightAndElement;
        found.push(...paired(tight, plain(`${part.id}.${element.id}`, "open"), weight));
      }
    }
    for (const { id, pins } of circuit.connectors) {
      for (const pin of Object.keys(pins)) {
        const where = `${id}:${pin}`;
        if (pinClass(netlist, where) === "loadPin" && shares.has(where))
          found.push(...paired(tight, banded(where, "high"), pairWeights.tightAndPin));
      }
    }
    for (const fuse of fusesFeeding(netlist, netlist.branchOf.get(motor.id))) {
      found.push(...paired(tight, plain(fuse, "blown"), pairWeights.tightAndFuse));
      found.push(...paired(plain(motor.id, "seized"), plain(fuse, "blown"), pairWeights.seizedAndFuse));
    }
  }
  return [...found, ...heatAndWater(netlist), ...shorts(netlist)];
}

/** Heat and water reach the neighbour: a pack with its plug, a control with its plug, a seized motor's control. */
function heatAndWater(netlist: Netlist): Draft[] {
  return netlist.circuit.parts.flatMap((part): Draft[] => {
    const pins = loadPinsOf(netlist.circuit, part.id);
    const bad = pins.flatMap((pin) => banded(pin, "high"));
    if (part.kind === "resistor") {
      const burnt = part.elements.flatMap(({ id }) => plain(`${part.id}.${id}`, "open"));
      return paired(burnt, bad, pairWeights.packAndPlug);
    }
    if (part.kind !== "module") return [];
    const seized = netlist.motors.flatMap(({ part: motor }) =>
      paired(plain(motor.id, "seized"), plain(part.id, "dead"), pairWeights.seizedAndModule),
    );
    return [
      ...seized,
      ...(["dead", "full-on"] as const).flatMap((mode) =>
        paired(plain(part.id, mode), bad, pairWeights.controlAndPlug / 2),
      ),
    ];
  });
}

/** A branch belongs to a motor's path if it carries at least this share of the motor's current. */
const pathShare = 0.5;

/** Branches that carry a motor's current in some setting of the healthy circuit. */
function sharesCurrent(netlist: Netlist, motor: number): Set<string> {
  const solver = new PointSolver(netlist);
  const values = nominalValues(netlist);
  const found = new Set<string>();
  const { settings, parts } = netlist.circuit;
  const own = parts.flatMap((part) =>
    part.kind === "selector" ? (part.settings ?? []).map((at) => ({ [part.id]: at })) : [],
  );
  for (const setup of [
    ...settings.map((setting) => ({ setting })),
    ...own.map((selectors) => ({ selectors })),
  ]) {
    const solved = solver.solve(values, setupState(netlist, { key: "run", ...setup }), []);
    const amps = Math.abs(solved.amps[motor] ?? 0);
    if (amps < 0.5) continue;
    netlist.branches.forEach(({ id }, index) => {
      if (Math.abs(solved.amps[index] ?? 0) >= pathShare * amps) found.add(id);
    });
  }
  return found;
}

/** Every wire that can short to ground behind a fuse, with that fuse blown. */
function shorts(netlist: Netlist): Draft[] {
  const byFuse = new Map<string, string[]>();
  for (const { id } of netlist.circuit.wires) {
    const at = netlist.branchOf.get(`${id}/from`) ?? netlist.branchOf.get(id);
    const [fuse] = fusesFeeding(netlist, at);
    if (fuse) byFuse.set(fuse, [...(byFuse.get(fuse) ?? []), id]);
  }
  return [...byFuse].flatMap(([fuse, wires]) =>
    wires.flatMap((wire) =>
      paired(plain(wire, "to-ground"), plain(fuse, "blown"), pairWeights.shortAndFuse / wires.length),
    ),
  );
}

/**
 * Fuses between the battery and a branch, the nearest first: those whose removal cuts the branch off from the feed,
 * with switches and relays closed and the reference left out.
 */
function fusesFeeding(netlist: Netlist, target: number | undefined): string[] {
  const branch = target === undefined ? undefined : netlist.branches[target];
  if (!branch) return [];
  const steps = distances(netlist, branch.a);
  const fed = steps.has(netlist.battery.positive);
  return netlist.circuit.parts
    .filter((part) => part.kind === "fuse")
    .map(({ id }) => ({ id, index: netlist.branchOf.get(id) ?? -1 }))
    .filter(({ index }) => fed && !reachable(netlist, branch.a, index))
    .sort((one, other) => nearness(netlist, steps, one.index) - nearness(netlist, steps, other.index))
    .map(({ id }) => id);
}

const nearness = (netlist: Netlist, steps: ReadonlyMap<number, number>, index: number): number =>
  steps.get(netlist.branches[index]?.b ?? -2) ?? Number.POSITIVE_INFINITY;

/** The search ends at loads: a fuse feeds what is before them, not what lies behind them. */
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
 * Every fault of a circuit with its prior, one entry for each band of sizes, derived from the circuit's own parts,
 * pins and wires, plus the pairs of cause and victim.
 */
export function catalogue(netlist: Netlist): CatalogueEntry[] {
  const placed = [...single(netlist), ...pairs(netlist)].flatMap(({ names, bands, weight }) => {
    const fault = placeFault(netlist, names);
    return fault.ok ? [{ fault: fault.value, bands, weight }] : [];
  });
  const total = placed.reduce((sum, { weight }) => sum + weight, 0);
  return placed.map(({ fault, bands, weight }) => ({
    id: faultId(fault.names),
    family: suspectGroupId(fault.names),
    fault,
    bands,
    prior: ((1 - unknownShare) * weight) / total,
  }));
}

/**
 * The changes of a fault at another size within its bands.
 * @param share position in the band, 0 to 1
 */
export function changesAt(
  netlist: Netlist,
  { fault, bands }: CatalogueEntry,
  share: number,
): readonly Change[] {
  if (bands.every((band) => band === null)) return fault.changes;
  const names = fault.names.map((name, index) => {
    const band = bands[index];
    return band ? { ...name, value: sizeIn(band, share) } : name;
  });
  const placed = placeFault(netlist, names);
  return placed.ok ? placed.value.changes : fault.changes;
}
