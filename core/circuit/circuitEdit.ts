import { z } from "zod";
import { type Parsed, type Problem, refused } from "../problem/problem";
import { type Circuit, connectorSchema, placeSchema, wireSchema } from "./circuit";
import { parseCircuit } from "./parseCircuit";
import { partSchema } from "./parts/index";
import { settingName } from "./parts/partBase";
import { resistorElementSchema } from "./parts/resistor";
import { namedAs } from "./writtenName";
import { writtenColour, writtenMetres, writtenMm2 } from "./writtenWire";

const list = z.enum(["parts", "connectors", "wires", "places"]);
export type CircuitList = z.infer<typeof list>;
const id = z.string().min(1).max(48);

/** The value of a table cell; null removes an optional value. */
const cell = z.union([
  z.string().max(200),
  z.number(),
  z.boolean(),
  z.array(z.string().max(64)).max(32),
  z.null(),
]);
export type CellValue = z.infer<typeof cell>;

/** One change to a circuit made in a table, small enough to be undone by itself. */
export const circuitEditSchema = z.discriminatedUnion("do", [
  /** Sets the value at a path of keys in an item: `mm2`, `elements.0.ohms`, `pins.3`. */
  z.strictObject({
    do: z.literal("set"),
    list,
    id,
    key: z.string().regex(/^[A-Za-z0-9_+.-]{1,64}$/, "must be a key of the item"),
    value: cell,
  }),
  z.strictObject({ do: z.literal("rename"), list, id, to: id }),
  z.strictObject({ do: z.literal("remove"), list, id }),
  z.discriminatedUnion("list", [
    z.strictObject({ do: z.literal("add"), list: z.literal("parts"), item: partSchema }),
    z.strictObject({ do: z.literal("add"), list: z.literal("connectors"), item: connectorSchema }),
    z.strictObject({ do: z.literal("add"), list: z.literal("wires"), item: wireSchema }),
    z.strictObject({ do: z.literal("add"), list: z.literal("places"), item: placeSchema }),
  ]),
  /** Renames a pin of a plug, or swaps it with the pin of that name. */
  z.strictObject({ do: z.literal("pin"), id, pin: id, to: id }),
  /** Renames a setting wherever it is used. */
  z.strictObject({ do: z.literal("setting"), from: settingName, to: settingName }),
  /** Adds a coil or a thermal link to a resistor pack. */
  z.strictObject({ do: z.literal("element"), id, item: resistorElementSchema }),
  /** Says that somebody has compared the wiring with the vehicle or its diagram, or that nobody has. */
  z.strictObject({ do: z.literal("wiring"), seen: z.boolean() }),
  /** Replaces all wires at once, from a pasted wire list. */
  z.strictObject({ do: z.literal("wires"), wires: z.array(wireSchema).max(800) }),
]);
export type CircuitEdit = z.infer<typeof circuitEditSchema>;

type Item = Record<string, unknown> & { id: string };
type Lists = Record<CircuitList, Item[]>;

/**
 * A circuit after one change. Renaming a part also renames every reference to it; removing one also removes its wires
 * and pins. A change that leaves no valid circuit is refused, with the place named.
 */
export function editedCircuit(circuit: Circuit, edit: CircuitEdit): Parsed<Circuit> {
  const next = structuredClone(circuit) as unknown as Circuit & Lists;
  const problem = apply(next, edit);
  if (problem) return refused([problem]);
  return parseCircuit(next);
}

/**
 * A circuit after several changes, checked once at the end.
 * @returns refused if a change fits nothing or the result is no circuit; the result does not say which change
 */
export function editedAtOnce(circuit: Circuit, edits: readonly CircuitEdit[]): Parsed<Circuit> {
  const next = structuredClone(circuit) as unknown as Circuit & Lists;
  for (const edit of edits) {
    const problem = apply(next, edit);
    if (problem) return refused([problem]);
  }
  return parseCircuit(next);
}

function apply(circuit: Circuit & Lists, edit: CircuitEdit): Problem | null {
  if (edit.do === "wires") {
    circuit.wires = edit.wires;
    return null;
  }
  if (edit.do === "wiring") {
    if (edit.seen) delete circuit.wiring;
    else circuit.wiring = "assumed";
    return null;
  }
  if (edit.do === "setting") return renameSetting(circuit, edit.from, edit.to);
  if (edit.do === "element") {
    const index = circuit.parts.findIndex((part) => part.id === edit.id);
    const part = circuit.parts[index];
    if (part?.kind !== "resistor")
      return { code: "no-such-thing", path: "parts", message: `there is no pack ${edit.id}` };
    part.elements.push(edit.item);
    return null;
  }
  if (edit.do === "pin") return renamePin(circuit, edit.id, edit.pin, edit.to);
  const items = circuit[edit.list] as Item[];
  if (edit.do === "add") {
    items.push(edit.item);
    return null;
  }
  const index = items.findIndex((item) => item.id === edit.id);
  const item = items[index];
  if (!item) return { code: "no-such-thing", path: edit.list, message: `there is no ${edit.id}` };
  switch (edit.do) {
    case "set":
      return set(item, edit.key, edit.value, `${edit.list}.${index}`, edit.list);
    case "rename":
      renameItem(circuit, edit.list, item, edit.to);
      return null;
    case "remove":
      items.splice(index, 1);
      forget(circuit, edit.list, edit.id);
      return null;
  }
}

function renameSetting(circuit: Circuit, from: string, to: string): Problem | null {
  const index = circuit.settings.indexOf(from);
  if (index < 0) return { code: "no-such-thing", path: "settings", message: `there is no setting ${from}` };
  if (from !== to && circuit.settings.includes(to))
    return { code: "duplicate", path: `settings.${index}`, message: `there is a setting ${to} already` };
  const renamed = <T>(map: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries(Object.entries(map).map(([name, value]) => [name === from ? to : name, value]));
  circuit.settings[index] = to;
  for (const part of circuit.parts) {
    // A switch with a lever of its own has its own settings.
    if (part.kind === "selector" && !part.settings) part.closes = renamed(part.closes);
    if (part.kind === "head") part.commands = renamed(part.commands);
  }
  return null;
}

function renamePin({ connectors }: Circuit, id: string, pin: string, to: string): Problem | null {
  const connector = connectors.find((own) => own.id === id);
  if (!connector || !Object.hasOwn(connector.pins, pin))
    return { code: "no-such-thing", path: "connectors", message: `there is no ${id}:${pin}` };
  // A name that is taken swaps the two pins, so that no spare number is needed.
  const swapped: Readonly<Record<string, string>> = { [pin]: to, [to]: pin };
  connector.pins = Object.fromEntries(
    Object.entries(connector.pins).map(([name, terminal]) => [swapped[name] ?? name, terminal]),
  );
  return null;
}

/** Whether setting a key makes an item known rather than guessed: any value of a part, the colour of a wire. */
const isKnownBy = (list: CircuitList, key: string): boolean =>
  list === "parts" ? !["assumed", "place", "title"].includes(key) : list === "wires" && key === "colour";

/** Reads a wire's colour, size or length as people write it. Text that cannot be read is returned as it is, and refused later with its place. */
function writtenIn(item: Item, key: string, value: CellValue): CellValue {
  if (typeof value !== "string") return value;
  if (key === "colour") {
    const taken = writtenColour(value);
    if (taken) delete item.colourName;
    if (taken?.colourName) item.colourName = taken.colourName;
    return taken?.colour ?? value;
  }
  const figure = key === "mm2" ? writtenMm2(value) : key === "metres" ? writtenMetres(value) : Number.NaN;
  return Number.isNaN(figure) ? value : figure;
}

function set(item: Item, key: string, given: CellValue, path: string, list: CircuitList): Problem | null {
  const value = list === "wires" ? writtenIn(item, key, given) : given;
  const keys = key.split(".");
  const last = keys.pop() as string;
  if (key === "id")
    return { code: "contradiction", path: `${path}.id`, message: "a name is changed by renaming" };
  let holder: Record<string, unknown> = item;
  for (const step of keys) {
    const inner = Object.hasOwn(holder, step) ? holder[step] : undefined;
    if (typeof inner !== "object" || inner === null)
      return { code: "no-such-thing", path: `${path}.${key}`, message: `there is no ${step} here` };
    holder = inner as Record<string, unknown>;
  }
  if (value === null) {
    if (Array.isArray(holder)) holder.splice(Number(last), 1);
    else Reflect.deleteProperty(holder, last);
  } else if (Array.isArray(holder) && !/^\d{1,3}$/.test(last))
    return { code: "wrong-value", path: `${path}.${key}`, message: `expected a number, got ${last}` };
  else Object.defineProperty(holder, last, { value, enumerable: true, writable: true, configurable: true });
  if (isKnownBy(list, key)) delete item.assumed;
  return null;
}

/** Renames an item. A part or plug may have any name: its id is derived from it, and the name is kept as its title. */
function renameItem(circuit: Circuit & Lists, list: CircuitList, item: Item, name: string): void {
  const own = list === "parts" || list === "connectors" ? namedAs(name) : { id: name };
  rename(circuit, list, item.id, own.id);
  // A part's title is only its earlier name; a plug's title says which plug it is.
  if (list === "parts") delete item.title;
  Object.assign(item, own);
}

/** The part that owns the terminal `PART.terminal`. */
const partOf = (reference: string): string => reference.split(".")[0] ?? "";

function rename(circuit: Circuit, list: CircuitList, id: string, to: string): void {
  const renamed = (reference: string): string =>
    partOf(reference) === id ? `${to}${reference.slice(id.length)}` : reference;
  if (list === "parts") {
    for (const wire of circuit.wires) {
      wire.from = renamed(wire.from);
      wire.to = renamed(wire.to);
    }
    for (const connector of circuit.connectors)
      for (const [pin, terminal] of Object.entries(connector.pins)) connector.pins[pin] = renamed(terminal);
  }
  if (list === "parts" || list === "connectors")
    for (const place of circuit.places) place.parts = place.parts.map((part) => (part === id ? to : part));
}

function forget(circuit: Circuit, list: CircuitList, id: string): void {
  if (list === "parts") {
    circuit.wires = circuit.wires.filter(({ from, to }) => partOf(from) !== id && partOf(to) !== id);
    for (const connector of circuit.connectors)
      connector.pins = Object.fromEntries(
        Object.entries(connector.pins).filter(([, terminal]) => partOf(terminal) !== id),
      );
  }
  if (list === "parts" || list === "connectors")
    for (const place of circuit.places) place.parts = place.parts.filter((part) => part !== id);
}
