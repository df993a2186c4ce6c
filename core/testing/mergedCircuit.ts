import type { Circuit } from "../circuit/circuit";
import { parseCircuit } from "../circuit/parseCircuit";
import { problemText } from "../problem/problem";
import { shippedJson } from "./shippedCircuit";

type Json = Record<string, unknown>;
interface Raw extends Json {
  parts: (Json & { id: string; kind: string })[];
  connectors: { id: string; pins: Record<string, string> }[];
  wires: (Json & { id: string; from: string; to: string })[];
  places: { id: string; parts: string[] }[];
}

/**
 * Two shipped circuits on one battery, for tests with a circuit larger than any shipped one. The second one's names
 * get a letter in front.
 */
export function mergedCircuit(first: string, second: string): Circuit {
  const one = shippedJson(first) as Raw;
  const other = shippedJson(second) as Raw;
  const battery = one.parts.find(({ kind }) => kind === "battery")?.id ?? "";
  const theirs = other.parts.find(({ kind }) => kind === "battery")?.id ?? "";
  const named = (id: string): string => (id === theirs ? battery : `Z${id}`);
  const point = (reference: string): string => {
    const dot = reference.indexOf(".");
    return `${named(reference.slice(0, dot))}${reference.slice(dot)}`;
  };
  const parsed = parseCircuit({
    ...one,
    id: "merged",
    title: `${first} and ${second}`,
    parts: [
      ...one.parts,
      ...other.parts.filter(({ id }) => id !== theirs).map((part) => ({ ...part, id: named(part.id) })),
    ],
    connectors: [
      ...one.connectors,
      ...other.connectors.map((connector) => ({
        ...connector,
        id: named(connector.id),
        pins: Object.fromEntries(
          Object.entries(connector.pins).map(([pin, terminal]) => [pin, point(terminal)]),
        ),
      })),
    ],
    wires: [
      ...one.wires,
      ...other.wires.map((wire) => ({
        ...wire,
        id: named(wire.id),
        from: point(wire.from),
        to: point(wire.to),
      })),
    ],
    places: [
      ...one.places,
      ...other.places.map((place) => ({
        ...place,
        id: named(place.id),
        parts: place.parts.filter((part) => part !== theirs).map(named),
      })),
    ],
  });
  if (!parsed.ok) throw new Error(parsed.problems.map(problemText).join("; "));
  return parsed.value;
}
