import type { Circuit } from "@core/circuit/circuit";
import { colourWords } from "@core/circuit/wireColour";
import { listed } from "@core/units/wording";
import { partName } from "./partName";

/** What a battery post is called where a lead sits on it; null for any other point. */
export function postName(circuit: Circuit, point: string): string | null {
  const battery = circuit.parts.find(({ kind }) => kind === "battery")?.id;
  if (point === `${battery}.+`) return "feed";
  return point === `${battery}.-` ? "ground" : null;
}

/** The wire at a point, by colour: `the black with yellow wire`. */
function wireAt(circuit: Circuit, point: string): string | null {
  const colon = point.indexOf(":");
  const plug = colon > 0 ? circuit.connectors.find(({ id }) => id === point.slice(0, colon)) : undefined;
  const terminal = plug ? plug.pins[point.slice(colon + 1)] : point;
  const wires = circuit.wires.filter(({ from, to }) => from === terminal || to === terminal);
  if (wires.length === 0) return null;
  return `the ${listed(wires.map(({ colour }) => colourWords(colour)))} wire${wires.length > 1 ? "s" : ""}`;
}

/** A point in words: `X5:2: resistor pack plug, the black with yellow wire, under the dash`. */
export function whereAt(circuit: Circuit, point: string): string {
  const id = point.split(/[.:/]/)[0] ?? point;
  const place = circuit.parts.find((part) => part.id === id)?.place;
  const wire = wireAt(circuit, point);
  return [`${point}: ${partName(circuit, id)}`, wire, place].filter(Boolean).join(", ");
}

/** Words as a sentence of their own. */
export const sentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
