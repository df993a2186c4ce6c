import { parseHoles } from "@core/match/holeText";
import { type PartDescription, parsePart } from "@core/match/partDescription";
import { type Parsed, refused } from "@core/problem/problem";
import { typedFigure } from "@core/units/typedFigure";
import { typedMinor } from "../text/money";

type Fields = Readonly<Record<string, string>>;

/** What the circuit says about a part's place: the coils between its terminals, the pins of its plug. */
export interface PartPlace {
  readonly coils: readonly { readonly from: string; readonly to: string }[];
  readonly pins: readonly string[];
}

/** The name of a coil's field. */
export const coilField = ({ from, to }: PartPlace["coils"][number]): string => `coil ${from} ${to}`;

/** Groups of figures that only make sense together. */
const wheelFigures = ["outerMm", "heightMm", "boreMm"] as const;
const plateFigures = ["ratedVolts", "ratedAmps", "stallAmps", "ratedRpm"] as const;
const yesOrNo = ["ventTube", "drainNose", "gasket"] as const;
const words = ["climate", "turns", "notch"] as const;

/**
 * A part as a form sends it; an empty field is unknown. Refused with the field that cannot be read, or that is missing
 * from a group.
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
    ["wheel", wheelFigures],
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
  const wheel = together(wheelFigures);
  return parsePart({
    format: "airway-part",
    version: 1,
    number: text("number").toUpperCase(),
    title: text("title"),
    kind: text("kind"),
    ...(price === undefined ? {} : { priceMinor: price }),
    ...(text("pins") ? { plug: { pins: number("pins"), ...told("tab", text("tab")) } } : {}),
    ...(holes.value.length > 0 ? { holes: holes.value } : {}),
    ...told("holePlayMm", number("holePlayMm")),
    ...told("screws", number("screws")),
    ...Object.assign({}, ...words.map((name) => told(name, text(name)))),
    ...Object.assign({}, ...yesOrNo.map((name) => told(name, text(name) === "yes"))),
    ...(wheel
      ? {
          wheel: {
            included: text("wheelIncluded") === "yes",
            ...wheel,
            shaft: text("shaft"),
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

/** A described part's own fields as they would be typed, without its number, title and price. */
export function fieldsOf(like: PartDescription | null, place: PartPlace, holes: string): Fields {
  if (!like) return {};
  const said = (value: string | number | undefined): string => (value === undefined ? "" : String(value));
  const yes = (value: boolean | undefined): string => (value === undefined ? "" : value ? "yes" : "no");
  const { plug, wheel, plate, elements, leads } = like;
  return {
    kind: like.kind,
    pins: said(plug?.pins),
    tab: said(plug?.tab),
    holes,
    holePlayMm: said(like.holePlayMm),
    screws: said(like.screws),
    ...Object.fromEntries(words.map((name) => [name, said(like[name])])),
    ...Object.fromEntries(yesOrNo.map((name) => [name, yes(like[name])])),
    wheelIncluded: yes(wheel?.included),
    shaft: said(wheel?.shaft),
    hold: said(wheel?.hold),
    ...Object.fromEntries(wheelFigures.map((name) => [name, said(wheel?.[name])])),
    ...Object.fromEntries(plateFigures.map((name) => [name, said(plate?.[name])])),
    ...Object.fromEntries(
      place.coils.map((coil) => [
        coilField(coil),
        said(
          elements?.find(
            ({ from, to }) =>
              (from === coil.from && to === coil.to) || (from === coil.to && to === coil.from),
          )?.ohms,
        ),
      ]),
    ),
    ...Object.fromEntries(
      place.pins.flatMap((pin) => {
        const lead = leads?.find((own) => own.pin === pin);
        return [
          [`leadColour ${pin}`, said(lead?.colour)],
          [`leadMm2 ${pin}`, said(lead?.mm2)],
        ];
      }),
    ),
  };
}
