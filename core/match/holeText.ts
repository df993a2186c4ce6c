import { type Parsed, quoted, refused } from "../problem/problem";
import { typedFigure } from "../units/typedFigure";
import type { Hole } from "./holePattern";

/** Holes as typed: the position of each in millimetres, `0 0 / 52 0`. */
export const holesText = (holes: readonly Hole[]): string => holes.map(([x, y]) => `${x} ${y}`).join(" / ");

const figure = /^-?\d+(?:[.,]\d+)?$/;

/**
 * Reads holes as measured. `1` is one hole. `52 between` is two holes, in millimetres centre to centre. `96 95.9 95.9
 * between` is three: the sides in clockwise order, seen from the side the screws go in. `0 0 / 52 0` gives positions,
 * right and up. A triangle's third hole follows from its sides by the law of cosines (Euclid, Elements, II.12–13).
 * Anything else is refused, and so are sides that do not meet.
 */
export function parseHoles(text: string): Parsed<Hole[]> {
  const own = text.trim().replaceAll(/\s+/g, " ");
  if (own === "") return { ok: true, value: [] };
  if (own === "1") return { ok: true, value: [[0, 0]] };
  if (own.endsWith("between")) return fromSides(own);
  const places = own.split("/").map((place) => place.trim().split(" "));
  if (places.some((place) => place.length !== 2 || place.some((piece) => !figure.test(piece))))
    return notRead(own);
  return { ok: true, value: places.map(([x = "", y = ""]): Hole => [typedFigure(x), typedFigure(y)]) };
}

const tenth = (value: number): number => Math.round(value * 10) / 10;

const notRead = (own: string): Parsed<Hole[]> =>
  refused([
    {
      code: "unreadable",
      path: "holes",
      message: `expected like "52 between", "96 95.9 95.9 between" or "0 0 / 52 0", got ${quoted(own)}`,
    },
  ]);

function fromSides(own: string): Parsed<Hole[]> {
  const pieces = own.slice(0, -"between".length).trim().split(" ");
  if (pieces.some((piece) => !figure.test(piece) || typedFigure(piece) <= 0)) return notRead(own);
  const [first = 0, second, third] = pieces.map(typedFigure);
  if (pieces.length === 1)
    return {
      ok: true,
      value: [
        [0, 0],
        [first, 0],
      ],
    };
  if (pieces.length !== 3 || second === undefined || third === undefined) return notRead(own);
  const x = (first ** 2 + third ** 2 - second ** 2) / (2 * first);
  const height = third ** 2 - x ** 2;
  if (height <= 0)
    return refused([
      {
        code: "contradiction",
        path: "holes",
        message: `sides of ${first}, ${second} and ${third} mm never meet: measure again`,
      },
    ]);
  return {
    ok: true,
    // Up is positive, so going clockwise the third hole lies below the line of the first two.
    value: [
      [0, 0],
      [first, 0],
      [tenth(x), -tenth(Math.sqrt(height))],
    ],
  };
}
