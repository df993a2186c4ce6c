import type { Netlist } from "../solve/netlist/netlist";

/**
 * Relative weights of how often each kind of thing fails in each mode, among blower complaints. They are judgements
 * (common practice, no source): packs and their links first, then motors, then the plugs that burn with them; wires
 * and grounds seldom. `docs/engine.md` prints the same table.
 */
export const modeWeights = {
  link: { open: 12, high: 0.4 },
  element: { open: 2.5, high: 0.3 },
  motor: {
    open: 4,
    "dead-spot": 4,
    seized: 2,
    tight: 2.5,
    "shorted-turns": 1,
    "worn-brushes": 3,
    "wheel-loose": 0.6,
    debris: 1.2,
    "bearing-dry": 1.5,
    "bearing-worn": 1.5,
    unbalanced: 0.8,
    "vent-whistle": 0.8,
    scrape: 0.6,
    "fades-hot": 1,
  },
  fuse: { blown: 1.5, high: 0.15 },
  relayCoil: { "coil-open": 0.7, "stuck-open": 1, welded: 0.4 },
  relayContact: { high: 0.8 },
  switchContact: { open: 0.5, high: 0.4, loose: 0.3 },
  switchCommon: { open: 0.6, high: 0.6, loose: 0.2 },
  /** Shared by the settings its contacts may stand at. */
  switchKnob: { "knob-turns": 0.5 },
  /** A fuse's or relay's socket that carries a load. */
  socket: { high: 0.2 },
  loadPin: { open: 0.6, high: 0.9, loose: 0.3 },
  otherPin: { open: 0.15, high: 0.2, loose: 0.1 },
  wire: { open: 0.12, high: 0.08, loose: 0.05, "to-ground": 0.02, "to-feed": 0.02 },
  /** A wire that can touch the body without blowing a fuse, because the blower's motor lies before it. */
  bareWire: { chafed: 0.08 },
  ground: { open: 0.3, high: 0.5, loose: 0.15 },
  module: { dead: 5, "full-on": 2.5, stuck: 1.5, thermal: 1.5 },
  head: { dead: 1, stuck: 0.5 },
  battery: { low: 0.4 },
  car: { "filter-blocked": 1.2, "duct-blocked": 0.4, iced: 0.5 },
} as const;

/** Weights of a cause together with the part it damages (common practice, no source). */
export const pairWeights = {
  tightAndLink: 3,
  tightAndElement: 0.4,
  tightAndPin: 0.15,
  seizedAndFuse: 1,
  tightAndFuse: 0.3,
  tightAndModule: 0.8,
  /** A burnt-out link or coil and the plug it melted, or the other way round; shared by the coils and pins. */
  packAndPlug: 0.8,
  /** A wet control and a wet pin of its plug, shared by the pins. */
  controlAndPlug: 0.5,
  seizedAndModule: 0.6,
  /** Weight for each fuse, shared by the wires behind it: a blown fuse raises the question of what blew it. */
  shortAndFuse: 0.3,
} as const;

/** Weight of a cause outside the model, relative to a total of 1 for the listed faults. */
export const unknownShare = 0.01;

export type WeightClass = keyof typeof modeWeights;

/** Pins of plugs that carry a motor's current burn; the others seldom do. */
export function pinClass(netlist: Netlist, pin: string): WeightClass {
  const colon = pin.indexOf(":");
  const connector = netlist.circuit.connectors.find(({ id }) => id === pin.slice(0, colon));
  const terminal = connector?.pins[pin.slice(colon + 1)];
  const part = netlist.circuit.parts.find(({ id }) => terminal?.startsWith(`${id}.`));
  if (part?.kind === "motor" || part?.kind === "resistor") return "loadPin";
  return part?.kind === "module" && !terminal?.endsWith(".cmd") ? "loadPin" : "otherPin";
}
