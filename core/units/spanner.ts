import { typedFigure } from "./typedFigure";
/** Millimetres in an inch, exactly (international yard and pound agreement of 1959; NIST SP 811, appendix B). */
export const millimetresPerInch = 25.4;

/** A hexagon's width across flats as it is stamped on a socket: `7 mm`, `9/32 in`. */
export interface SocketSize {
  readonly text: string;
  readonly millimetres: number;
}

const metric = [4, 5, 5.5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19];
const thirtySeconds = [5, 6, 7, 8, 9, 10, 11, 12, 14, 16, 18, 20, 22, 24];

/** An inch size given in thirty-seconds, in writing: 10 is `5/16 in`. */
function inchText(count: number): string {
  let [top, bottom] = [count, 32];
  while (top % 2 === 0 && bottom > 1) [top, bottom] = [top / 2, bottom / 2];
  return `${top}/${bottom} in`;
}

/** The sockets of a common set, metric and inch. */
export const sockets: readonly SocketSize[] = [
  ...metric.map((millimetres) => ({ text: `${millimetres} mm`, millimetres })),
  ...thirtySeconds.map((count) => ({
    text: inchText(count),
    millimetres: (count * millimetresPerInch) / 32,
  })),
];

/** The width across flats a text names; null if it names no hexagon (a `T20`, a `PH2`). */
export function socketSize(text: string): SocketSize | null {
  const millimetres = /^(\d{1,2}(?:[.,]\d)?) ?mm\b/.exec(text);
  if (millimetres) return { text: millimetres[0], millimetres: typedFigure(millimetres[1] as string) };
  const inches = /^(\d{1,2})\/(\d{1,2}) ?in\b/.exec(text);
  if (!inches || Number(inches[2]) === 0) return null;
  return { text: inches[0], millimetres: (Number(inches[1]) * millimetresPerInch) / Number(inches[2]) };
}

/** A socket that can replace another. */
export interface Substitute {
  readonly text: string;
  /** Its width minus the screw head's: loose above zero, tight below. */
  readonly errorMillimetres: number;
  readonly fit: "snug" | "loose";
}

/**
 * Largest difference in width, in millimetres, with which a socket still turns a small screw. The three pairs people
 * use (7/32 in for 5.5 mm, 9/32 in for 7 mm, 5/16 in for 8 mm) lie within it (common practice, no source).
 */
const tightest = -0.07;
const loosest = 0.15;
const snug = 0.08;

/** Sockets of the other system that can replace one, the closest first. */
export function substitutesFor(text: string): readonly Substitute[] {
  const wanted = socketSize(text);
  if (!wanted) return [];
  return sockets
    .filter((one) => one.text.endsWith("in") !== wanted.text.endsWith("in"))
    .flatMap((one): Substitute[] => {
      const errorMillimetres = one.millimetres - wanted.millimetres;
      if (errorMillimetres < tightest || errorMillimetres > loosest) return [];
      return [
        { text: one.text, errorMillimetres, fit: Math.abs(errorMillimetres) <= snug ? "snug" : "loose" },
      ];
    })
    .sort((a, b) => Math.abs(a.errorMillimetres) - Math.abs(b.errorMillimetres));
}
