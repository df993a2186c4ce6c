import { z } from "zod";

/** IEC 60757 colour codes and the words a technician says. */
export const colourNames = {
  BK: "black",
  BN: "brown",
  RD: "red",
  OG: "orange",
  YE: "yellow",
  GN: "green",
  BU: "blue",
  VT: "violet",
  GY: "grey",
  WH: "white",
  PK: "pink",
  TQ: "turquoise",
} as const;
export type ColourCode = keyof typeof colourNames;

const codes = Object.keys(colourNames).join("|");

/** A wire's colour: a base code and, after a slash, a tracer: `BK/YE`. */
export const wireColour = z
  .string()
  .regex(
    new RegExp(`^(${codes})(/(${codes}))?$`),
    "must be IEC 60757 codes such as BK or BK/YE (BK BN RD OG YE GN BU VT GY WH PK TQ)",
  );

/** The base and tracer of a colour code; the tracer is null for a plain wire. */
export function colourStripes(colour: string): { base: ColourCode; tracer: ColourCode | null } {
  const [base, tracer] = colour.split("/") as [ColourCode, ColourCode | undefined];
  return { base, tracer: tracer ?? null };
}

/** The keys of a wire that determine how its colour is named. */
interface ColouredWire {
  readonly colour: string;
  readonly colourName?: string | undefined;
  readonly assumed?: boolean | undefined;
}

/** A wire's colour in words, as its diagram names it; null if the colour is only a guess. */
export const wireColourWords = ({ colour, colourName, assumed }: ColouredWire): string | null =>
  assumed ? null : (colourName ?? colourWords(colour));

/** A colour in words: `BK/YE` is "black/yellow". */
export function colourWords(colour: string): string {
  const { base, tracer } = colourStripes(colour);
  return tracer ? `${colourNames[base]}/${colourNames[tracer]}` : colourNames[base];
}
