interface Place {
  readonly x: number;
  readonly y: number;
}

/** Arrow keys as steps on the sheet. */
export const directions: Readonly<Record<string, Place>> = {
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
};

/** Penalty for sideways distance relative to forward distance. */
const asideTimes = 2;

/**
 * The nearest point in a direction, with sideways distance counted double.
 * @returns its index, or `from` if nothing lies that way
 */
export function nearestIn(direction: Place, from: number, places: readonly Place[]): number {
  const at = places[from];
  if (!at) return from;
  let best = from;
  let least = Number.POSITIVE_INFINITY;
  places.forEach((place, index) => {
    const [x, y] = [place.x - at.x, place.y - at.y];
    const ahead = x * direction.x + y * direction.y;
    const aside = Math.abs(x * direction.y) + Math.abs(y * direction.x);
    if (ahead < 1 || aside > asideTimes * ahead) return;
    const far = ahead + asideTimes * aside;
    if (far < least) [best, least] = [index, far];
  });
  return best;
}
