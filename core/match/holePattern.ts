/** A hole's centre, in millimetres. */
export type Hole = readonly [x: number, y: number];

/** How one hole pattern fits on another. */
export interface HoleFit {
  /** The largest distance of a hole after the best fit, in millimetres. */
  readonly worstMm: number;
  /** True if it fits only turned over, so that it cannot be screwed on. */
  readonly mirrored: boolean;
  /** Degrees it is rotated by. */
  readonly turnedDegrees: number;
}

/** Millimetres beyond which the pattern is a different one and is not matched. */
const hopelessMm = 15;

/**
 * Fits one hole pattern on another by rotation and shift, and returns how far the worst hole is off; turned over only
 * if that is closer. Every pairing of two holes is tried; then all holes are paired with their nearest and fitted by
 * least squares (W. Kabsch, "A solution for the best rotation to relate two sets of vectors", 1976, in the plane).
 * @returns null if the counts differ or no fit comes close
 */
export function layOn(old: readonly Hole[], fresh: readonly Hole[]): HoleFit | null {
  if (old.length !== fresh.length || old.length === 0) return null;
  if (old.length === 1) return { worstMm: 0, mirrored: false, turnedDegrees: 0 };
  const straight = closest(old, fresh);
  const over = closest(
    old,
    fresh.map(([x, y]): Hole => [-x, y]),
  );
  const best =
    over.worstMm < straight.worstMm - 0.2 ? { ...over, mirrored: true } : { ...straight, mirrored: false };
  return best.worstMm > hopelessMm ? null : best;
}

interface Laid {
  readonly worstMm: number;
  readonly turnedDegrees: number;
}

function closest(old: readonly Hole[], fresh: readonly Hole[]): Laid {
  let best: Laid = { worstMm: Number.POSITIVE_INFINITY, turnedDegrees: 0 };
  for (const a of old.keys())
    for (const b of fresh.keys()) {
      for (const c of old.keys()) {
        if (c === a) continue;
        for (const d of fresh.keys()) {
          if (d === b) continue;
          const turned = turnOf(fresh[b] as Hole, fresh[d] as Hole) - turnOf(old[a] as Hole, old[c] as Hole);
          const laid = paired(old, fresh, -turned, old[a] as Hole, fresh[b] as Hole);
          const own = laid ? kabsch(old, laid) : null;
          if (own && own.worstMm < best.worstMm - 1e-9) best = own;
        }
      }
    }
  return best;
}

const turnOf = ([x0, y0]: Hole, [x1, y1]: Hole): number => Math.atan2(y1 - y0, x1 - x0);

/** The new holes in the order of the old ones nearest to them; null if two share the same one. */
function paired(
  old: readonly Hole[],
  fresh: readonly Hole[],
  turn: number,
  from: Hole,
  onto: Hole,
): readonly Hole[] | null {
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const order = old.map(() => -1);
  for (const [index, [x, y]] of fresh.entries()) {
    const [dx, dy] = [x - onto[0], y - onto[1]];
    const [lx, ly] = [from[0] + cos * dx - sin * dy, from[1] + sin * dx + cos * dy];
    const away = old.map(([ox, oy]) => Math.hypot(ox - lx, oy - ly));
    const nearest = away.indexOf(Math.min(...away));
    if (order[nearest] !== -1) return null;
    order[nearest] = index;
  }
  return order.map((index) => fresh[index] as Hole);
}

function kabsch(old: readonly Hole[], fresh: readonly Hole[]): Laid {
  const middle = (of: readonly Hole[]): Hole => [
    of.reduce((sum, [x]) => sum + x, 0) / of.length,
    of.reduce((sum, [, y]) => sum + y, 0) / of.length,
  ];
  const [mo, mf] = [middle(old), middle(fresh)];
  let [dot, cross] = [0, 0];
  for (const [i, [x, y]] of fresh.entries()) {
    const [ox, oy] = old[i] as Hole;
    dot += (x - mf[0]) * (ox - mo[0]) + (y - mf[1]) * (oy - mo[1]);
    cross += (x - mf[0]) * (oy - mo[1]) - (y - mf[1]) * (ox - mo[0]);
  }
  const turn = Math.atan2(cross, dot);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const off = fresh.map(([x, y], i) => {
    const [ox, oy] = old[i] as Hole;
    const [dx, dy] = [x - mf[0], y - mf[1]];
    return Math.hypot(mo[0] + cos * dx - sin * dy - ox, mo[1] + sin * dx + cos * dy - oy);
  });
  return { worstMm: Math.max(...off), turnedDegrees: (turn * 180) / Math.PI };
}
