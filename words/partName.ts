import type { Circuit } from "@core/circuit/circuit";
import type { PartKind } from "@core/circuit/parts/index";
import { type Repair, theCar } from "@core/fault/repair";
import { listed } from "@core/units/wording";

const kindNames: Readonly<Record<PartKind, string>> = {
  battery: "battery",
  ground: "ground point",
  fuse: "fuse",
  ignition: "key switch",
  relay: "relay",
  selector: "speed switch",
  resistor: "resistor pack",
  motor: "blower motor",
  module: "control module",
  head: "climate panel",
  splice: "splice",
  inline: "in-line plug",
};

/** A technician's name for a part, plug or wire of this circuit, without its id. */
export function partName(circuit: Circuit, id: string): string {
  const part = circuit.parts.find((candidate) => candidate.id === id);
  if (part?.title) return part.title;
  // A rating nobody has read is not told.
  if (part) return part.kind === "fuse" && !part.assumed ? `${part.amps} A fuse` : kindNames[part.kind];
  const connector = circuit.connectors.find((candidate) => candidate.id === id);
  if (connector) return connector.title ?? "plug";
  if (circuit.wires.some((wire) => wire.id === id)) return "wire";
  if (id === theCar) return "air filter or duct";
  return "something else";
}

/** Name and id: `resistor pack R1`; a set is listed, the cause first. */
export const repairName = (circuit: Circuit, ids: readonly string[]): string =>
  listed(ids.map((id) => (id === theCar ? partName(circuit, id) : `${partName(circuit, id)} ${id}`)));

/** A repair in words; a cause outside the list is something else. */
export const nameOfRepair = (circuit: Circuit, { parts }: Repair): string =>
  parts.length > 0 ? repairName(circuit, parts) : "something else";

const modeWords: Readonly<Record<string, string>> = {
  open: "open",
  high: "bad contact",
  loose: "intermittent contact",
  blown: "blown",
  "coil-open": "coil open",
  "stuck-open": "stuck open",
  welded: "welded shut",
  "dead-spot": "dead spot",
  seized: "seized",
  tight: "tight, draws too much",
  "shorted-turns": "shorted turns",
  "worn-brushes": "worn brushes",
  "wheel-loose": "wheel loose",
  debris: "debris in the wheel",
  "bearing-dry": "dry bearing",
  "bearing-worn": "worn bearing",
  unbalanced: "out of balance",
  "to-ground": "shorted to ground",
  "to-feed": "shorted to feed",
  low: "low",
  "filter-blocked": "filter blocked",
  "duct-blocked": "duct blocked",
  iced: "evaporator iced up",
  thermal: "quits when hot",
  "fades-hot": "fades when hot",
  "vent-whistle": "whistles at its vent hole",
  scrape: "wheel rubs on its housing",
  "knob-turns": "knob turns without its contacts",
  chafed: "chafed, touches ground at times",
  dead: "dead",
  "full-on": "full on",
  stuck: "stuck part-way",
};

/** A fault with what has to be repaired: `resistor pack R1: thermal link open`. */
export const faultTitle = (
  circuit: Circuit,
  { fault, family }: { readonly fault: Repair; readonly family: string },
): string => `${repairName(circuit, [...new Set(fault.parts)])}: ${faultWords(family)}`;

/** How something failed: `open`, `bad contact`. */
export const modeText = (mode: string): string => modeWords[mode] ?? mode;

/** Whether a fault's place is a fuse's or relay's socket, as `K3/87`, and not a wire's end. */
const isSocket = (where: string): boolean => /\/(?!from$|to$)/.test(where);

/** A fault in words: `link open`, `pin 4 bad contact`, `tight, draws too much, then link open`. */
export function faultWords(fault: string): string {
  return fault
    .split("+")
    .map((one) => {
      const colon = one.lastIndexOf(":");
      const where = one.slice(0, colon);
      const mode = one.slice(colon + 1).split("@")[0] ?? "";
      const piece = where.split(".")[1];
      const socket = isSocket(where) ? where.split("/")[1] : undefined;
      const inner = socket
        ? `socket ${socket}`
        : where.includes(":")
          ? `pin ${where.slice(where.indexOf(":") + 1)}`
          : piece === "link"
            ? "thermal link"
            : piece;
      return `${inner ? `${inner} ` : ""}${modeText(mode)}`;
    })
    .join(", then ");
}

const labelNames: Readonly<Record<string, string>> = {
  ...kindNames,
  link: "thermal link",
  element: "pack coil",
  pin: "plug pin",
  wire: "wire",
  socket: "fuse or relay socket",
  CAR: "filter or duct",
  car: "filter or duct",
  connector: "plug",
  unknown: "not listed",
};

/** A kind of thing that fails, in the shop's counts; a pair's cause first. */
export const kindWords = (kind: string): string =>
  kind
    .split("+")
    .map((own) => labelNames[own] ?? own)
    .join(", then ");

/** A fault by its kind and mode in the shop's counts: `heat fuse open`, `blower motor tight, then heat fuse open`. */
export function faultLabelWords(kind: string, mode: string): string {
  const modes = mode.split("+");
  return kind
    .split("+")
    .map((own, index) => {
      const words = modeWords[modes[index] ?? ""] ?? "";
      return `${labelNames[own] ?? own}${words ? ` ${words}` : ""}`;
    })
    .join(", then ");
}
