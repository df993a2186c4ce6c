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

export const labelSize = { width: 84, height: 16 };
/** Half a wire's width and a little air. */
const gap = 8;

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
function places(corners: readonly Point[]): Point[] {
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
              { x: x + gap, y: y - labelSize.height / 2 },
              { x: x - gap - labelSize.width, y: y - labelSize.height / 2 },
            ]
          : [
              { x: x - labelSize.width / 2, y: y - gap - labelSize.height },
              { x: x - labelSize.width / 2, y: y + gap },
            ];
      }),
    );
}

/**
 * Finds each wire's label a place that crosses no symbol, no other label and no wire.
 * @param wires corner points of each wire
 * @param taken boxes no label may cross
 * @returns the top left corner of each label, null where there is no free place
 */
export function placeLabels(wires: readonly (readonly Point[])[], taken: readonly Box[]): (Point | null)[] {
  const lines = wires.flatMap(segmentBoxes);
  const placed: Box[] = [];
  return wires.map((corners) => {
    const free = places(corners).find((place) => {
      const box = { ...place, ...labelSize };
      return ![...taken, ...lines, ...placed].some((other) => overlaps(box, other));
    });
    if (!free) return null;
    placed.push({ ...free, ...labelSize });
    return free;
  });
}
