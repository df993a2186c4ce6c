import { parseHoles } from "@core/match/holeText";
import { type PartDescription, parsePart } from "@core/match/partDescription";
import { type Parsed, refused } from "@core/problem/problem";
import { typedFigure } from "@core/units/typedFigure";
import { typedMinor } from "../text/money";
import {
  coilField,
  type Fields,
  type PartPlace,
  plateFigures,
  wheelFigures,
  words,
  yesOrNo,
} from "./partForm";

/**
 * Reads a part from a submitted form. An empty field means unknown. The refusal names the field that cannot be read, or
 * that a group of fields lacks.
 * @param place what the circuit says about the part's place
 * @param currency the shop's, for the price
 */
export function partFrom(fields: Fields, place: PartPlace, currency: string): Parsed<PartDescription> {
  const text = (name: string): string => (fields[name] ?? "").trim();
  // Text that is not a figure is passed on as typed, so that the refusal can quote it.
  const number = (name: string): number | string => {
    const value = typedFigure(text(name));
    return Number.isNaN(value) ? text(name) : value;
  };
  const told = (name: string, value: unknown) => (text(name) ? { [name]: value } : {});
  const holes = parseHoles(text("holes"));
  if (!holes.ok) return holes;
  const price = text("price") ? typedMinor(text("price"), currency) : undefined;
  if (price === null)
    return refused([{ code: "wrong-value", path: "price", message: "enter an amount such as 34.50" }]);

  const together = (names: readonly string[]): Record<string, number | string> | null =>
    names.every((name) => !text(name)) ? null : Object.fromEntries(names.map((name) => [name, number(name)]));
  const gap = (names: readonly string[]) => names.find((name) => !text(name)) ?? "";
  const coils = place.coils.map(coilField);
  for (const [title, names] of [
    ["plate", plateFigures],
    ["ohms", coils],
  ] as const)
    if (together(names) && gap(names))
      return refused([
        {
          code: "missing",
          path: `${title}.${gap(names)}`,
          message: "is missing; fill in all of these fields or none",
        },
      ]);
  const leads = place.pins.flatMap((pin) => {
    const [colour, mm2] = [text(`leadColour ${pin}`).toUpperCase(), text(`leadMm2 ${pin}`)];
    return colour || mm2 ? [{ pin, colour, mm2: number(`leadMm2 ${pin}`) }] : [];
  });
  const plate = together(plateFigures);
  const hasWheel = [...wheelFigures, "wheelIncluded", "shaft", "hold"].some((name) => text(name));
  return parsePart({
    format: "airway-part",
    version: 1,
    number: text("number").toUpperCase(),
    title: text("title"),
    kind: text("kind"),
    ...(price === undefined ? {} : { priceMinor: price }),
    ...(text("pins")
      ? {
          plug: {
            pins: number("pins"),
            ...told("tab", text("tab")),
            ...told("seat", text("seat")),
            ...told("tailMm", number("tailMm")),
          },
        }
      : {}),
    ...(holes.value.length > 0 ? { holes: holes.value } : {}),
    ...told("holePlayMm", number("holePlayMm")),
    ...told("screws", number("screws")),
    ...Object.assign({}, ...words.map((name) => told(name, text(name)))),
    ...Object.assign({}, ...yesOrNo.map((name) => told(name, text(name) === "yes"))),
    ...(hasWheel
      ? {
          wheel: {
            included: text("wheelIncluded") === "yes",
            ...Object.fromEntries(wheelFigures.flatMap((name) => (text(name) ? [[name, number(name)]] : []))),
            ...told("shaft", text("shaft")),
            ...told("hold", text("hold")),
          },
        }
      : {}),
    ...(plate ? { plate } : {}),
    ...(coils.some((name) => text(name))
      ? {
          elements: place.coils.map((coil) => ({
            from: coil.from,
            to: coil.to,
            ohms: number(coilField(coil)),
          })),
        }
      : {}),
    ...(leads.length > 0 ? { leads } : {}),
  });
}
