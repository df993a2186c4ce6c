import type { Circuit } from "@core/circuit/circuit";
import { wireColourWords } from "@core/circuit/wireColour";
import { listed } from "@core/units/wording";
import { partName } from "./partName";

/** Something in the circuit as a person names it: by what is seen, with its id in the diagram. */
export interface SeenName {
  /** Without the id: `resistor plug, pin 2, black/yellow wire`. */
  readonly name: string;
  /** The id, unless the name already tells it: `X5:2`; null for the battery's posts. */
  readonly id: string | null;
}

/** The wires at a terminal, by colour: `black/yellow wire`; null if there are none, or their colours are not known. */
function wiresAt(circuit: Circuit, terminal: string | undefined): string | null {
  const wires = circuit.wires.filter(({ from, to }) => from === terminal || to === terminal);
  if (wires.length === 0) return null;
  // A colour nobody has seen is not told.
  const colours = wires.map(wireColourWords).filter((words) => words !== null);
  if (colours.length < wires.length) return null;
  return `${listed(colours)} wire${wires.length > 1 ? "s" : ""}`;
}

/** A post of the battery; null for any other point. */
export function postName(circuit: Circuit, point: string): string | null {
  const battery = circuit.parts.find(({ kind }) => kind === "battery")?.id;
  if (point === `${battery}.+`) return "battery positive";
  return point === `${battery}.-` ? "battery negative" : null;
}

/** The name of a terminal or a piece of a part, after its part's name. */
function pieceName(circuit: Circuit, partId: string, piece: string): string {
  const part = circuit.parts.find(({ id }) => id === partId);
  const element = part?.kind === "resistor" ? part.elements.find(({ id }) => id === piece) : undefined;
  if (element) return "thermalLink" in element ? "thermal link" : `coil ${piece}`;
  if (piece === "+") return "positive terminal";
  if (piece === "-") return "negative terminal";
  return part?.kind === "ground" ? "" : `terminal ${piece}`;
}

/** The part that a terminal belongs to. */
const ownerName = (circuit: Circuit, terminal: string): string =>
  partName(circuit, terminal.slice(0, terminal.indexOf(".")));

/** Names anything in a circuit: a point, a part, a plug or a wire. An unknown id is returned unchanged. */
export function seenName(circuit: Circuit, id: string): SeenName {
  const post = postName(circuit, id);
  if (post) return { name: post, id: null };
  const [, owner = id, mark, piece = ""] = /^([^.:/]+)([.:/]?)(.*)$/.exec(id) ?? [];
  const wire = circuit.wires.find((own) => own.id === owner);
  if (wire) {
    const end =
      mark === "/" ? `, end at the ${ownerName(circuit, piece === "from" ? wire.from : wire.to)}` : "";
    const colour = wireColourWords(wire);
    return { name: `${colour === null ? "" : `${colour} `}wire${end}`, id };
  }
  const name = partName(circuit, owner);
  if (name === "something else") return { name: id, id: null };
  if (mark === "") return { name, id };
  const parts =
    mark === ":"
      ? [
          name,
          `pin ${piece}`,
          wiresAt(circuit, circuit.connectors.find((own) => own.id === owner)?.pins[piece]),
        ]
      : [name, pieceName(circuit, owner, piece), wiresAt(circuit, id)];
  return { name: parts.filter(Boolean).join(", "), id };
}

/** The name and the id in one text: `resistor plug, pin 2, black/yellow wire (X5:2)`. */
export function seenText(circuit: Circuit, id: string): string {
  const { name, id: shown } = seenName(circuit, id);
  return shown === null ? name : `${name} (${shown})`;
}

/** Its location according to the circuit; null if the circuit gives none. */
export function placeOf(circuit: Circuit, point: string): string | null {
  const id = point.split(/[.:/]/)[0] ?? point;
  return circuit.parts.find((part) => part.id === id)?.place ?? null;
}

/** Words as they begin a sentence or a heading. */
export const capitalised = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Words as a sentence. */
export const sentence = (text: string): string => `${capitalised(text)}.`;
