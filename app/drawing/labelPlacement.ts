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
const letterWidth = 8;
/** Half a wire's width, and clear of the figure at a port. */
const gap = 11;

/** Room a label's text takes on the sheet. */
export const labelRoom = (text: string): { width: number; height: number } => ({
  width: letterWidth * text.length + 6,
  height: labelHeight,
});

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
      [0.5, 0.35, 0.65, 0.2, 0.8].flatMap((share) => {
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
 * Finds each wire's label a place that crosses no symbol, no other label and no wire.
 * @param wires corner points of each wire, and what its label says
 * @param taken boxes no label may cross
 * @returns the box of each label, null where there is no free place
 */
export function placeLabels(
  wires: readonly { readonly corners: readonly Point[]; readonly text: string }[],
  taken: readonly Box[],
): (Box | null)[] {
  const lines = wires.flatMap(({ corners }) => segmentBoxes(corners));
  const placed: Box[] = [];
  return wires.map(({ corners, text }) => {
    const size = labelRoom(text);
    const free = places(corners, size).find((place) => {
      const box = { ...place, ...size };
      return ![...taken, ...lines, ...placed].some((other) => overlaps(box, other));
    });
    if (!free) return null;
    const box = { ...free, ...size };
    placed.push(box);
    return box;
  });
}
