/** A rectangle on the sheet. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

interface Point {
  readonly x: number;
  readonly y: number;
}

const labelHeight = 16;
/** Widths at the label's font size, for the app's font and for the wider one of a saved picture. */
const letterWidth = 9;
const wideLetterWidth = 15;
/** Distance from a wire's centre line to its label: clear of the figure at a port, or close where space is narrow. */
const gaps = [11, 7];
const along = [0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8, 0.1, 0.9];

/** A label at its place: its words on one line, on two lines, or the first word alone. */
export interface PlacedLabel extends Box {
  readonly lines: readonly string[];
}

const lineWidth = (line: string): number =>
  letterWidth * line.length + (wideLetterWidth - letterWidth) * (line.split("W").length - 1);

/** The space a label's lines take on the sheet. */
export const labelRoom = (lines: readonly string[]): { width: number; height: number } => ({
  width: Math.max(0, ...lines.map(lineWidth)) + 6,
  height: labelHeight * lines.length,
});

/** Ways to write a wire's code and colour, the best first. */
const ways = ([code, colour]: readonly [string, string]): string[][] =>
  colour === "" ? [[code]] : [[`${code} ${colour}`], [code, colour], [code]];

const overlaps = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

function segmentBoxes(corners: readonly Point[]): Box[] {
  return corners.slice(1).map((to, i) => {
    const from = corners[i] as Point;
    return {
      x: Math.min(from.x, to.x) - 5,
      y: Math.min(from.y, to.y) - 5,
      width: Math.abs(from.x - to.x) + 10,
      height: Math.abs(from.y - to.y) + 10,
    };
  });
}

/** Places beside a wire's own segments, the longest segment's middle first. */
function places(corners: readonly Point[], size: { width: number; height: number }): Point[] {
  const segments = corners.slice(1).map((to, i) => ({ from: corners[i] as Point, to }));
  const length = ({ from, to }: { from: Point; to: Point }): number =>
    Math.abs(from.x - to.x) + Math.abs(from.y - to.y);
  return [...segments]
    .sort((a, b) => length(b) - length(a))
    .flatMap(({ from, to }) =>
      gaps
        .flatMap((gap) => along.map((share) => ({ gap, share })))
        .flatMap(({ gap, share }) => {
          const x = from.x + share * (to.x - from.x);
          const y = from.y + share * (to.y - from.y);
          return from.x === to.x
            ? [
                { x: x + gap, y: y - size.height / 2 },
                { x: x - gap - size.width, y: y - size.height / 2 },
              ]
            : [
                { x: x - size.width / 2, y: y - gap - size.height },
                { x: x - size.width / 2, y: y + gap },
              ];
        }),
    );
}

/**
 * Finds a place for each wire's label that crosses no symbol, no other label and no wire: its code and colour on one
 * line, otherwise on two, otherwise the code alone; without room beside the wire, the code on it.
 * @param wires corner points of each wire, and its code and colour
 * @param taken boxes no label may cross
 * @returns the label of each, null if there is no free place
 */
export function placeLabels(
  wires: readonly { readonly corners: readonly Point[]; readonly words: readonly [string, string] }[],
  taken: readonly Box[],
): (PlacedLabel | null)[] {
  const lines = wires.map(({ corners }) => segmentBoxes(corners));
  const placed: PlacedLabel[] = [];
  const put = (
    written: readonly string[],
    spots: (size: { width: number; height: number }) => Point[],
    keepClear: readonly Box[],
  ): PlacedLabel | null => {
    const size = labelRoom(written);
    const free = spots(size).find((place) => {
      const box = { ...place, ...size };
      return ![taken, keepClear, placed].some((boxes) => boxes.some((other) => overlaps(box, other)));
    });
    if (!free) return null;
    const label = { ...free, ...size, lines: written };
    placed.push(label);
    return label;
  };
  return wires.map(({ corners, words }, own) => {
    const beside = ways(words).reduce<PlacedLabel | null>(
      (found, written) => found ?? put(written, (size) => places(corners, size), lines.flat()),
      null,
    );
    const others = () => lines.flatMap((boxes, wire) => (wire === own ? [] : boxes));
    return beside ?? put([words[0]], (size) => onWire(corners, size), others());
  });
}

/** Places on the wire itself, which the code interrupts. */
function onWire(corners: readonly Point[], size: { width: number; height: number }): Point[] {
  return corners.slice(1).flatMap((to, i) => {
    const from = corners[i] as Point;
    return along.map((share) => ({
      x: from.x + share * (to.x - from.x) - size.width / 2,
      y: from.y + share * (to.y - from.y) - size.height / 2,
    }));
  });
}
