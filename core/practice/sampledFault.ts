import type { Chance } from "../chance/chance";
import { plugsOf } from "../circuit/plugs";
import type { CatalogueEntry } from "../fault/catalogue";
import type { Fault } from "../fault/fault";
import { mechanicalModes } from "../motor/mechanicalMode";
import type { Netlist } from "../solve/netlist/netlist";
import { conditions, type FaultBehaviour, type HiddenFault, plainBehaviour } from "./hiddenFault";
import { sampleSeverity } from "./sampledVehicle";
import { type TradeFault, tradeFaults, unlistedFaults } from "./tradeFault";
import type { World } from "./world";

/** How often a vehicle has a fault nobody lists. */
const unlistedShare = 0.02;

/** The part kinds' names in a report; what is not a part is a plug or a wire. */
const kindTitles: Readonly<Record<string, string>> = {
  motor: "motor",
  resistor: "pack",
  module: "control",
  head: "panel",
  selector: "switch",
  ignition: "switch",
  relay: "relay",
  fuse: "fuse",
  ground: "ground",
  battery: "battery",
  inline: "plug",
};

/** The group a fault of the catalogue is reported under. */
export function kindOf(netlist: Netlist, { names, parts }: Fault): string {
  const [name] = names;
  if (!name) return "other";
  if (names.length > 1) return "pair";
  if (name.mode in mechanicalModes || name.mode === "filter-blocked") return "mechanical";
  if (name.mode === "loose" || name.mode === "dead-spot") return "comes and goes";
  const part = netlist.circuit.parts.find(({ id }) => id === parts[0]);
  if (part) return kindTitles[part.kind] ?? "other";
  return netlist.circuit.connectors.some(({ id }) => id === parts[0]) ? "plug" : "wire";
}

/** Modes that can wait for heat, wet or bumps. */
export const waits: ReadonlySet<string> = new Set([
  "open",
  "high",
  "dead",
  "full-on",
  "stuck",
  "stuck-open",
  "coil-open",
  "to-ground",
]);

/**
 * Marks that heat and water leave on the neighbour: a burnt pack or switch on its plug, a burnt plug on its part, and
 * the leak that killed a control on its plug.
 */
function neighbourMarks(netlist: Netlist, fault: Fault, share: number, chance: Chance): Map<string, string> {
  const found = new Map<string, string>();
  const { circuit } = netlist;
  fault.names.forEach(({ mode }, index) => {
    const failed = fault.parts[index] ?? "";
    const part = circuit.parts.find(({ id }) => id === failed);
    const burns = mode === "open" || mode === "high";
    const under = circuit.parts.flatMap(({ id }) => (plugsOf(circuit, id).includes(failed) ? [id] : []));
    const mark = (neighbours: readonly string[], word: string): void => {
      for (const neighbour of neighbours) if (chance.uniform() < share) found.set(neighbour, word);
    };
    if (burns && (!part || part.kind === "resistor" || part.kind === "selector"))
      mark([...plugsOf(circuit, failed), ...under], "melted");
    if (part?.kind === "module") mark(plugsOf(circuit, failed), chance.pick(["wet", "melted"]));
  });
  return found;
}

/** How a fault of the catalogue behaves in a world: what it waits for, and the marks it leaves. */
export function behaviourOf(netlist: Netlist, fault: Fault, world: World, chance: Chance): FaultBehaviour {
  const [name] = fault.names;
  const canWait = fault.names.length === 1 && fault.presentShare === 1 && waits.has(name?.mode ?? "");
  return {
    ...plainBehaviour,
    waitsFor: canWait && chance.uniform() < world.comesAndGoes ? chance.pick(conditions) : null,
    visible: neighbourMarks(netlist, fault, world.neighbourMarks, chance),
  };
}

/** The faults a fleet draws from. */
export interface FaultSource {
  /** The engine's own catalogue, which is drawn by its prior. */
  readonly whole: readonly CatalogueEntry[];
  /** The same without what the list of trade faults draws. */
  readonly others: readonly CatalogueEntry[];
  readonly beyond: readonly TradeFault[];
  readonly unlisted: readonly TradeFault[];
}

/** Modes that the list of trade faults draws, with severities and behaviour of their own. */
const tradeModes = new Set([
  "thermal",
  "fades-hot",
  "iced",
  "duct-blocked",
  "vent-whistle",
  "scrape",
  "knob-turns",
  "chafed",
]);

/** Whether the list of trade faults draws faults like this one, so that the catalogue's own are not drawn as well. */
function isTradeFault(netlist: Netlist, { names: [name, second], parts }: Fault): boolean {
  if (!name || tradeModes.has(name.mode) || name.where.includes("/")) return true;
  const part = netlist.circuit.parts.find(({ id }) => id === parts[0]);
  if (!second) return part?.kind === "selector" && name.where === `${part.id}.${part.common}`;
  if (part?.kind === "motor") return name.mode === "seized" && second.mode === "dead";
  return (part?.kind === "resistor" || part?.kind === "module") && second.mode === "high";
}

/** @param entries the catalogue of the circuit */
export function faultSource(netlist: Netlist, entries: readonly CatalogueEntry[]): FaultSource {
  const own = entries.filter(({ fault }) => !isTradeFault(netlist, fault));
  const sum = (of: readonly CatalogueEntry[]): number => of.reduce((total, { prior }) => total + prior, 0);
  const times = sum(entries) / sum(own);
  return {
    whole: entries,
    others: own.map((entry) => ({ ...entry, prior: times * entry.prior })),
    beyond: tradeFaults(netlist),
    unlisted: unlistedFaults(netlist),
  };
}

const modesOf = ({ fault }: CatalogueEntry): string => fault.names.map(({ mode }) => mode).join("+");

/**
 * Draws a hidden fault for a harder fleet.
 * @param draw `prior` as often as the trade meets it; `even` with every mode equally likely
 */
export function sampleFault(
  netlist: Netlist,
  source: FaultSource,
  draw: "prior" | "even",
  world: World,
  chance: Chance,
): HiddenFault {
  const entries = world.beyondCatalogue ? source.others : source.whole;
  const [beyond, unlisted] = world.beyondCatalogue ? [source.beyond, source.unlisted] : [[], []];
  if (unlisted.length > 0 && chance.uniform() < unlistedShare) return chance.pick(unlisted).make(chance);
  const listed = (entry: CatalogueEntry): HiddenFault => {
    const fault = sampleSeverity(netlist, entry, world, chance);
    const behaviour = behaviourOf(netlist, fault, world, chance);
    const kind = behaviour.waitsFor ? "comes and goes" : kindOf(netlist, fault);
    return { fault, behaviour, kind };
  };
  if (draw === "even") {
    const mode = chance.pick([
      ...new Set([...entries.map(modesOf), ...beyond.map((fault) => `beyond ${fault.mode}`)]),
    ]);
    const own = beyond.filter((fault) => `beyond ${fault.mode}` === mode);
    if (own.length > 0) return chance.pick(own).make(chance);
    return listed(chance.pick(entries.filter((entry) => modesOf(entry) === mode)));
  }
  const weights = [
    ...entries.map(({ prior }) => prior),
    // The catalogue keeps what the others leave over.
    ...beyond.map(({ weight }) => weight),
  ];
  const at = chance.weighted(weights);
  const entry = entries[at];
  if (entry) return listed(entry);
  const fault = beyond[at - entries.length];
  if (!fault) throw new RangeError("no faults");
  return fault.make(chance);
}
