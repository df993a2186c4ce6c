import type { Part } from "@core/circuit/parts/index";
import { typedFigure } from "@core/units/typedFigure";

/** One value of a part in a table. */
export interface PartValue {
  /** The path of keys to it: `elements.0.ohms`. */
  readonly key: string;
  readonly words: string;
  readonly value: string | number | readonly string[];
}

const units: Readonly<Record<string, string>> = {
  restVolts: "resting V",
  chargingVolts: "charging V",
  ohms: "Ω",
  amps: "A",
  coilOhms: "coil Ω",
  pullInVolts: "pulls in at V",
  dropOutVolts: "drops out at V",
  contactOhms: "contact Ω",
  ratedVolts: "rated V",
  ratedAmps: "rated A",
  stallAmps: "stalled A",
  ratedRpm: "rated rpm",
  commutatorBars: "bars",
  polePairs: "pole pairs",
  onOhms: "full on Ω",
  outOhms: "output Ω",
  "commandVolts.0": "stops at V",
  "commandVolts.1": "full on at V",
};

const own = new Set(["id", "kind", "place", "assumed"]);

function flat(value: unknown, key: string, words: string): PartValue[] {
  if (typeof value === "number" || typeof value === "string") return [{ key, words, value }];
  if (Array.isArray(value) && value.every((one) => typeof one === "string")) return [{ key, words, value }];
  if (typeof value !== "object" || value === null) return [];
  return Object.entries(value as Record<string, unknown>).flatMap(([name, inner]) => {
    const path = `${key}.${name}`;
    const id = typeof inner === "object" && inner !== null && "id" in inner ? inner.id : null;
    const item = typeof id === "string" ? id : name;
    return flat(inner, path, units[path] ?? `${words} ${units[name] ?? item}`.trim());
  });
}

/** Everything of a part that a cell can change, in its own order. */
export const partValues = (part: Part): PartValue[] =>
  Object.entries(part).flatMap(([key, value]) =>
    own.has(key) ? [] : flat(value, key, units[key] ?? (key === "elements" ? "" : key)),
  );

/** A value as its cell shows it. */
export const cellText = (value: PartValue["value"]): string =>
  Array.isArray(value) ? value.join(" ") : String(value);

/** A cell's text as the type of the previous value. */
export function cellValue(text: string, before: PartValue["value"]): string | number | string[] | null {
  const typed = text.trim();
  if (Array.isArray(before)) return typed === "" ? [] : typed.split(/[\s,]+/);
  if (typeof before !== "number") return typed;
  const number = typedFigure(typed);
  return Number.isNaN(number) ? typed : number;
}
