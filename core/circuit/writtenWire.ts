import { typedFigure } from "../units/typedFigure";
import { type ColourCode, colourNames } from "./wireColour";

/** A colour as a diagram or a person writes it, as a code. */
export interface WrittenColour {
  /** IEC 60757, with a tracer after a slash. */
  readonly colour: string;
  /** The colour in words, if the code cannot express it: `dark blue`. */
  readonly colourName?: string;
}

/** Words and short forms of plain colours beside the names of the codes (common practice, no source). */
const plain: Readonly<Record<string, ColourCode>> = {
  blk: "BK",
  bk: "BK",
  b: "BK",
  brn: "BN",
  br: "BN",
  gray: "GY",
  gry: "GY",
  grn: "GN",
  g: "GN",
  blu: "BU",
  bl: "BU",
  purple: "VT",
  pur: "VT",
  ppl: "VT",
  vio: "VT",
  orn: "OG",
  org: "OG",
  or: "OG",
  o: "OG",
  r: "RD",
  yel: "YE",
  y: "YE",
  wht: "WH",
  w: "WH",
  pnk: "PK",
  p: "PK",
  turq: "TQ",
  teal: "TQ",
};

/** Colours between the codes, each with the nearest one (judgement). */
const shades: Readonly<Record<string, ColourCode>> = {
  tan: "BN",
  beige: "BN",
  maroon: "RD",
  navy: "BU",
  lime: "GN",
  cream: "WH",
  natural: "WH",
  clear: "WH",
  silver: "GY",
  gold: "YE",
  amber: "OG",
};

const codeOf: Readonly<Record<string, ColourCode>> = {
  ...plain,
  ...shades,
  ...Object.fromEntries(
    Object.entries(colourNames).flatMap(([code, name]) => [
      [code.toLowerCase(), code as ColourCode],
      [name, code as ColourCode],
    ]),
  ),
};

/** One colour of a wire: its code, and whether the words say more than the code. */
function oneColour(text: string): { code: ColourCode; words: string; shaded: boolean } | null {
  const [, shade, name = ""] =
    /^(?:(light|lt|dark|dk|pale|bright)[\s.-]*)?(.+)$/.exec(text.trim().toLowerCase()) ?? [];
  const code = codeOf[name.trim()];
  if (!code) return null;
  const full = shade === "lt" ? "light" : shade === "dk" ? "dark" : shade;
  const own = name.trim() in shades ? name.trim() : colourNames[code];
  return { code, words: full ? `${full} ${own}` : own, shaded: full !== undefined || name.trim() in shades };
}

/**
 * Reads a colour as people write it: `BK/YE`, `black/yellow`, `blk-yel`, `red with white stripe`, `dark blue`, `tan`.
 * @returns null if a word of it is no colour
 */
export function writtenColour(text: string): WrittenColour | null {
  const [base = "", tracer, ...more] = text
    .trim()
    .replace(/\s+(?:with|w\/)\s+(?:an?\s+)?/i, "/")
    .replace(/\s+(?:stripe|tracer)$/i, "")
    .split(/\s*[/]\s*/);
  if (more.length > 0) return null;
  const whole = oneColour(base);
  if (tracer === undefined) {
    if (whole) return { colour: whole.code, ...(whole.shaded ? { colourName: whole.words } : {}) };
    // "blk-yel" and "black yellow": two colours without a slash.
    const parts = base.split(/[\s-]+/);
    return parts.length === 2 ? writtenColour(parts.join("/")) : null;
  }
  const stripe = oneColour(tracer);
  if (!whole || !stripe) return null;
  return {
    colour: `${whole.code}/${stripe.code}`,
    ...(whole.shaded || stripe.shaded ? { colourName: `${whole.words}/${stripe.words}` } : {}),
  };
}

/**
 * Cross-section in mm² of an American wire gauge: 92^((36 − n) / 39) × 0.127 mm across (ASTM B258, from memory).
 * @param gauge 10 for 10 AWG; 0, −1 and so on for the larger sizes
 */
export const gaugeMm2 = (gauge: number): number =>
  Number(((Math.PI / 4) * (0.127 * 92 ** ((36 - gauge) / 39)) ** 2).toPrecision(3));

/** A wire's cross-section in mm² as people write it: `2.5`, `2,5 mm2`, `10 AWG`, `16 ga`; NaN if it is none. */
export function writtenMm2(text: string): number {
  const gauge = /^#?\s*(\d{1,2})\s*(?:awg|ga|gauge)\.?$/i.exec(text.trim())?.[1];
  if (gauge) return gaugeMm2(Number(gauge));
  return typedFigure(text.trim().replace(/\s*mm(?:2|²|\^2)?$/i, ""));
}

/** Metres in each unit of length. */
const metresIn: Readonly<Record<string, number>> = {
  "": 1,
  m: 1,
  metre: 1,
  metres: 1,
  cm: 0.01,
  mm: 0.001,
  in: 0.0254,
  inch: 0.0254,
  inches: 0.0254,
  '"': 0.0254,
  ft: 0.3048,
  foot: 0.3048,
  feet: 0.3048,
  "'": 0.3048,
};

/** A length in metres as people write it: `0.8`, `80 cm`, `12 in`, `2 ft`; NaN if it is none. */
export function writtenMetres(text: string): number {
  const [, figure = "", unit = ""] = /^(.*?\d)\s*([a-z"']*)\.?$/i.exec(text.trim()) ?? [];
  const metres = metresIn[unit.toLowerCase()];
  const value = typedFigure(figure);
  return metres === undefined ? Number.NaN : Number((value * metres).toFixed(4));
}
