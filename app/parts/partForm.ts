import type { PartDescription } from "@core/match/partDescription";

/** The fields of the form of a part, by name, as typed. */
export type Fields = Readonly<Record<string, string>>;

/** What the circuit says about a part's place: the coils between its terminals, the pins of its plug. */
export interface PartPlace {
  readonly coils: readonly { readonly from: string; readonly to: string }[];
  readonly pins: readonly string[];
}

/** The name of a coil's field. */
export const coilField = ({ from, to }: PartPlace["coils"][number]): string => `coil ${from} ${to}`;

/** Groups of figures that only make sense together. */
export const wheelFigures = ["outerMm", "heightMm", "boreMm"] as const;
export const plateFigures = ["ratedVolts", "ratedAmps", "stallAmps", "ratedRpm"] as const;
/** Fields answered by yes or no. */
export const yesOrNo = ["ventTube", "drainNose", "gasket", "lead", "clip"] as const;
/** Fields that hold a word of the format as it stands. */
export const words = ["climate", "turns", "notch", "key", "mount"] as const;

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
    seat: said(plug?.seat),
    tailMm: said(plug?.tailMm),
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
