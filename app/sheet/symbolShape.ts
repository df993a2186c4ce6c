import type { Circuit } from "@core/circuit/circuit";
import { type Part, type PartOf, terminalsOf } from "@core/circuit/parts/index";

/** Where a terminal's line leaves its symbol, in the symbol's own coordinates. */
export interface SymbolPort {
  readonly terminal: string;
  readonly x: number;
  readonly side: "north" | "south";
}

/** A symbol's box with room for its label, and its ports. */
export interface SymbolShape {
  readonly width: number;
  readonly height: number;
  readonly ports: readonly SymbolPort[];
}

/** Whether current enters at a terminal; undefined if none ever flows. */
export type Enters = (reference: string) => boolean | undefined;

/** Distance of taps and contacts, with room for a wire's code between the figures. */
const tap = 102;
export const contactPitch = 102;
/** Distance of an in-line plug's pins, with room for their volts. */
export const inlinePitch = 80;

/** Points of a pack in the order of its chain, from the feed side's tap to the far end. */
export function packChain(part: PartOf<"resistor">): string[] {
  const links = new Map<string, string[]>();
  for (const { from, to } of part.elements) {
    links.set(from, [...(links.get(from) ?? []), to]);
    links.set(to, [...(links.get(to) ?? []), from]);
  }
  const ends = [...links.keys()].filter((name) => links.get(name)?.length === 1);
  const chain: string[] = [];
  let at: string | undefined = ends[0] ?? [...links.keys()][0];
  while (at !== undefined) {
    chain.push(at);
    at = links.get(at)?.find((next) => !chain.includes(next));
  }
  return [...chain, ...[...links.keys()].filter((name) => !chain.includes(name))];
}

const port = (terminal: string, x: number, side: "north" | "south"): SymbolPort => ({ terminal, x, side });

/** The side by the current: it enters at the top and leaves at the bottom. */
function sideOf(
  part: Part,
  terminal: string,
  enters: Enters,
  fallback: "north" | "south",
): "north" | "south" {
  const entering = enters(`${part.id}.${terminal}`);
  if (entering === undefined) return fallback;
  return entering ? "north" : "south";
}

function spread(part: Part, first: string, others: readonly string[], enters: Enters): SymbolShape {
  const side = sideOf(part, first, enters, "north");
  const away = side === "north" ? "south" : "north";
  return {
    width: contactPitch * Math.max(1, others.length) + 28,
    height: 54,
    ports: [
      port(first, 22, side),
      ...others.map((terminal, i) => port(terminal, 22 + contactPitch * i, away)),
    ],
  };
}

/** Approximate space of a soft label. */
const softWidth = (text: string): number => Math.ceil(text.length * 7.6);

/** The text beside a fuse: its amps, unless they are a guess, and its location. */
export const fuseWords = ({ amps, place, assumed }: PartOf<"fuse">): string =>
  [assumed ? "" : `${amps} A`, place ?? ""].filter((text) => text !== "").join(", ");

/** A terminal's side, unless the current decides it. */
type SideOf = (terminal: string, fallback: "north" | "south") => "north" | "south";

const other = (side: "north" | "south") => (side === "north" ? "south" : "north");

/** Where the normally closed contact leaves a relay, clear of the figure at the other contact. */
export const restingX = 148;

/** @param resting whether the normally closed contact is wired */
const relayShape = (fed: "north" | "south", resting: boolean): SymbolShape => ({
  width: resting ? 226 : 190,
  height: 60,
  ports: [
    port("86", 24, "north"),
    port("85", 24, "south"),
    port("30", 84, fed),
    port("87", 84, other(fed)),
    ...(resting ? [port("87a", restingX, other(fed))] : []),
  ],
});

function packShape(circuit: Circuit, part: PartOf<"resistor">, side: SideOf): SymbolShape {
  const chain = packChain(part);
  const used = chain.filter((name) => isTerminal(circuit, `${part.id}.${name}`));
  return {
    width: tap * (chain.length - 1) + 96,
    height: 88,
    ports: used.map((name) => port(name, packX(chain, name), side(name, "south"))),
  };
}

const inlineShape = ({ pins }: PartOf<"inline">, side: SideOf): SymbolShape => ({
  width: inlinePitch * pins.length + 62,
  height: 30,
  ports: pins.flatMap((pin, i) => {
    const into = side(`${pin}a`, "north");
    return [port(`${pin}a`, 18 + inlinePitch * i, into), port(`${pin}b`, 18 + inlinePitch * i, other(into))];
  }),
});

const controlShape: SymbolShape = {
  width: 260,
  height: 84,
  ports: [
    port("30", 30, "north"),
    port("cmd", 110, "north"),
    port("m+", 30, "south"),
    port("m-", 110, "south"),
    port("31", 190, "south"),
  ],
};

const panelShape: SymbolShape = {
  width: 200,
  height: 84,
  ports: [
    port("30", 30, "north"),
    port("15", 92, "north"),
    port("cmd", 30, "south"),
    port("31", 130, "south"),
  ],
};

/** The shape of a part's symbol in a circuit. */
export function symbolShape(circuit: Circuit, part: Part, enters: Enters): SymbolShape {
  const side: SideOf = (terminal, fallback) => sideOf(part, terminal, enters, fallback);
  switch (part.kind) {
    case "battery":
      return { width: 130, height: 44, ports: [port("+", 24, "south"), port("-", 24, "north")] };
    case "ground":
      return {
        width: part.place ? 66 + softWidth(part.place) : 92,
        height: 26,
        ports: [port("31", 18, "north")],
      };
    case "fuse": {
      const feed = side("in", "north");
      return {
        width: Math.max(110, 38 + softWidth(fuseWords(part))),
        height: 44,
        ports: [port("in", 16, feed), port("out", 16, other(feed))],
      };
    }
    case "motor": {
      const plus = side("+", "north");
      return {
        width: 140,
        height: 60,
        ports: [port("+", 30, plus), port("-", 30, other(plus))],
      };
    }
    case "relay":
      return relayShape(side("30", "north"), usesResting(circuit, part.id));
    case "ignition": {
      const [feed = "30", ...outputs] = terminalsOf(part);
      return spread(part, feed, outputs, enters);
    }
    case "selector": {
      const [common = "C", ...outputs] = terminalsOf(part);
      return spread(part, common, outputs, enters);
    }
    case "resistor":
      return packShape(circuit, part, side);
    case "inline":
      return inlineShape(part, side);
    case "splice":
      return { width: 10, height: 10, ports: [] };
    case "module":
      return controlShape;
    case "head":
      return panelShape;
  }
}

/** The position of a point in the pack's chain. */
export const packX = (chain: readonly string[], name: string): number => 30 + tap * chain.indexOf(name);

/** True for a terminal with a wire. */
export const isWired = (circuit: Circuit, terminal: string): boolean =>
  circuit.wires.some(({ from, to }) => from === terminal || to === terminal);

function isTerminal(circuit: Circuit, reference: string): boolean {
  return (
    isWired(circuit, reference) ||
    circuit.connectors.some(({ pins }) => Object.values(pins).includes(reference))
  );
}

const usesResting = (circuit: Circuit, id: string): boolean => isTerminal(circuit, `${id}.87a`);
