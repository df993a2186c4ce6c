import { medianOf } from "../../signal/currentRecording";
import { type Peak, peaksOf, type Spectrum, spectrumOf } from "../../signal/spectrum";
import type { HumpGrid } from "../rhythm/humpGrid";
import { turnLine } from "./turnLine";

/** What repeats in the ripples' mean current: nothing, once per turn, or in a way that need not be once per turn. */
export type TurnMark =
  | { readonly kind: "none" }
  | { readonly kind: "once-a-turn"; readonly humps: number }
  | { readonly kind: "pattern"; readonly humps: number; readonly repeats: Repeats };

/** Why a pattern need not be a turn: no commutator has one so long, or unequal bars cause it once per brush. */
type Repeats = "repeats-not-by-turn" | "repeats-once-a-brush";

/** Power of a line, as a multiple of the noise, from which it counts. */
const linePower = 30;
/** Height of a line, as a share of the strongest, below which it may be leakage or rounding. */
const leastShare = 0.1;
/** Largest offset of a strong line from its expected order, in bins. */
const within = 0.4;
/** The same for a line far above the noise. */
const withinSure = 0.1;
/** Allowed offset of a strong line, in bins, times its height over the noise; it stays between `withinSure` and `within`. */
const withinOverNoise = 5;
/** The same for the weaker lines, whose place is less certain. */
const withinWeak = 1.2;
/** How many of the strongest lines must meet `within`. */
const strongLines = 2;
/** Distance of the sidebands of a slow change, as a share of the distance between orders of the turn. */
const sidebandShare = 0.35;
/** A line is at least this many times taller than its sidebands. */
const sidebandTaller = 3;
/** Largest ratio between the two sidebands of one line. */
const sidebandsAlike = 2;
/** Smallest share of a mark's power in its first order. A dip made by bad bars spreads over more orders. */
const swingShare = 0.95;
/**
 * Smallest difference, as a share of its power, between a mark and the dip of both brushes left at one brush and inverted
 * at the other.
 */
const leastApart = 0.2;
/** Ripples lower than this share of the deepest dip are left out of it. */
const dippedShare = 0.04;
/** Distance of a dip from the median, as a multiple of the median distance. */
const dipOverSpread = 6;
/** Depth of a dip below the median, as a multiple of the largest height above it. */
const dipOverTop = 2.2;
/** Height of a mark over what may be half a turn, as a multiple of the least mark, from which it counts. */
const surelyMore = 8;
/** Height of a single spike, as a multiple of the rest, from which it is one. */
const spikeOverRest = 5;
/** Most spectral lines examined. */
const mostLines = 30;

/** Number of ripples beyond which more do not help to find the turn. */
export const enoughHumps = 2 ** 15;

/** Mean current of each ripple, of the first some ten thousand. */
export function humpLevels({ values, points, humps: ripple }: HumpGrid): Float64Array {
  return Float64Array.from({ length: Math.min(enoughHumps, ripple) }, (_, hump) => {
    let sum = 0;
    for (let i = 0; i < points; i++) sum += values[hump * points + i] as number;
    return sum / points;
  });
}

/**
 * Looks for a mark once per turn in the mean current of successive ripples: a variation, or a spike. Unequal bars
 * repeat too, but with one brush per pole each passes every brush, so their pattern comes once per pole, and a dip
 * alone does not tell which it is.
 * @param even levels with the dips of bad bars removed, `raw` unchanged
 * @param possible numbers of ripples per turn that a commutator can give
 * @param leastAmps variations smaller than this come from the sampling
 */
export function turnMark(
  even: Float64Array,
  raw: Float64Array,
  possible: readonly number[],
  poles: number,
  leastAmps: number,
): TurnMark {
  const most = possible.at(-1) ?? 0;
  if (even.length < 3 * (possible[0] ?? 8)) return { kind: "none" };
  const spectrum = spectrumOf(even, 1, { size: 2 ** Math.ceil(Math.log2(4 * even.length)) });
  const lines = linesOf(spectrum, even.length, most, (leastAmps * even.length) / 4);
  if (lines.length === 0) return { kind: "none" };
  const binHz = 1 / even.length;
  const strongest = Math.min(...lines.map((line) => line.within));
  // The shortest period of which all lines are multiples.
  for (let ripple = 2; ripple <= most; ripple++) {
    const own = lines.filter((line) => !isSideband(line, lines, sidebandShare / ripple, binHz * withinWeak));
    if (!own.every((line) => belongs(line, ripple, binHz * line.within))) continue;
    // It must be distinguishable from the neighbouring periods.
    const alike = [ripple - 1, ripple + 1].some(
      (other) => Math.abs(1 / other - 1 / ripple) < binHz * strongest,
    );
    if (alike) return { kind: "none" };
    // Unequal bars may cause a small variation over half a turn by chance.
    const leastSwing = possible.includes(poles * ripple) ? surelyMore * leastAmps : 0;
    return judged({ even, raw, humps: ripple, poles, leastSwing }, possible.includes(ripple));
  }
  return { kind: "none" };
}

/** A line of the ripples' levels, and how close to its expected order it must be, in bins. */
interface Line extends Peak {
  readonly within: number;
}

function linesOf(spectrum: Spectrum, count: number, most: number, least: number): Line[] {
  const low = Math.max(0.7 / most, 3 / count);
  const floor = medianOf(spectrum.magnitude.subarray(Math.ceil(low / spectrum.binHz)));
  const peaks = peaksOf(spectrum, low, 0.5, mostLines);
  const strongest = peaks[0]?.magnitude ?? 0;
  return peaks
    .filter(
      (peak) =>
        peak.magnitude > least &&
        peak.magnitude ** 2 > linePower * floor ** 2 &&
        peak.magnitude ** 2 > leastShare ** 2 * strongest ** 2,
    )
    .map((peak, place) => ({
      ...peak,
      within:
        place < strongLines
          ? Math.min(within, Math.max(withinSure, (withinOverNoise * floor) / peak.magnitude))
          : withinWeak,
    }));
}

/**
 * True if a line is close to a taller one with a similar line on the other side: something changes along the
 * recording, more slowly than the turn.
 * @param reach how close, and `same` how similar the two distances must be, both per ripple
 */
const isSideband = (line: Line, lines: readonly Line[], reach: number, same: number): boolean =>
  lines.some(
    (taller) =>
      taller.magnitude > sidebandTaller * line.magnitude &&
      Math.abs(line.hz - taller.hz) < reach &&
      lines.some(
        (other) =>
          other !== line &&
          Math.abs(line.hz + other.hz - 2 * taller.hz) < same &&
          Math.max(line.magnitude / other.magnitude, other.magnitude / line.magnitude) < sidebandsAlike,
      ),
  );

function belongs({ hz }: Peak, ripple: number, tolerance: number): boolean {
  const order = Math.round(hz * ripple);
  return order >= 1 && Math.abs(hz - order / ripple) < tolerance;
}

interface Repeating {
  readonly even: Float64Array;
  readonly raw: Float64Array;
  readonly humps: number;
  readonly leastSwing: number;
  readonly poles: number;
}

function judged({ even, raw, humps: ripple, poles, leastSwing }: Repeating, feasible: boolean): TurnMark {
  const pattern = (repeats: Repeats): TurnMark => ({ kind: "pattern", humps: ripple, repeats });
  if (!feasible) return pattern("repeats-not-by-turn");
  const profile = foldedLevels(raw, ripple);
  return swingsOnce(profile, poles, leastSwing) || (!hasDips(profile) && isSpike(foldedLevels(even, ripple)))
    ? { kind: "once-a-turn", humps: ripple }
    : pattern("repeats-once-a-brush");
}

/**
 * True if a period has one variation. Bars, including bad ones, pass every brush alike, so what the brushes have in
 * common is subtracted; the rest is a pure variation. If half a turn is taken for a whole one, its dip remains at one
 * brush and inverted at the other, as deep as the common part.
 */
function swingsOnce(profile: Float64Array, poles: number, leastSwing: number): boolean {
  const count = profile.length;
  const common = profile.map((_, hump) => {
    let sum = 0;
    for (let brush = 0; brush < poles; brush++)
      sum += profile[(hump + (brush * count) / poles) % count] as number;
    return sum / poles;
  });
  const own = profile.map((value, hump) => value - (common[hump] as number));
  const level = Math.max(...common);
  let [apart, power] = [0, 0];
  own.forEach((value, hump) => {
    const dip = level - (common[hump] as number);
    apart += (Math.abs(value) - dip) ** 2;
    power += value * value;
  });
  if (apart <= leastApart * power) return false;
  // In a deep dip the brushes differ slightly; this does not count where half a turn is impossible.
  const lowest = level - dippedShare * (level - Math.min(...common));
  const isLevel = (hump: number): boolean => (common[hump] as number) >= lowest;
  const dipped =
    leastSwing === 0 && hasDips(common) && own.filter((_, hump) => isLevel(hump)).length > count / 2;
  const { share, amplitude } = firstOrder(own, dipped ? isLevel : () => true);
  return share > swingShare && amplitude > leastSwing;
}

/**
 * The once-per-period variation of a profile, by least squares over some of its ripples: its share of their power, and
 * its amplitude.
 */
function firstOrder(
  profile: Float64Array,
  takes: (hump: number) => boolean,
): { readonly share: number; readonly amplitude: number } {
  let [cosines, sines, both, withCosine, withSine, power] = [0, 0, 0, 0, 0, 0];
  profile.forEach((value, hump) => {
    if (!takes(hump)) return;
    const angle = (2 * Math.PI * hump) / profile.length;
    const [cosine, sine] = [Math.cos(angle), Math.sin(angle)];
    cosines += cosine * cosine;
    sines += sine * sine;
    both += cosine * sine;
    withCosine += value * cosine;
    withSine += value * sine;
    power += value * value;
  });
  const determinant = cosines * sines - both * both;
  const a = (withCosine * sines - withSine * both) / determinant;
  const b = (withSine * cosines - withCosine * both) / determinant;
  return { share: (a * withCosine + b * withSine) / Math.max(1e-300, power), amplitude: Math.hypot(a, b) };
}

/** Mean level of each ripple of a period, relative to their median. */
function foldedLevels(levels: Float64Array, ripple: number): Float64Array {
  const periods = Math.floor(levels.length / ripple);
  const sums = new Float64Array(ripple);
  for (let i = 0; i < periods * ripple; i++)
    sums[i % ripple] = (sums[i % ripple] as number) + (levels[i] as number) / periods;
  const middle = medianOf(sums);
  return sums.map((value) => value - middle);
}

/** True if something lies far below the median of a period and nothing as far above it. */
function hasDips(profile: Float64Array): boolean {
  const line = turnLine(profile, 1);
  const off = profile.map((value, hump) => value - line.at(hump));
  return (
    -Math.min(...off) >=
    Math.max(dipOverTop * Math.max(...off), dipOverSpread * medianOf(off.map((value) => Math.abs(value))))
  );
}

/** True if one ripple of the period stands far above the rest; a bad bar lowers the current and never raises it. */
function isSpike(profile: Float64Array): boolean {
  const top = Math.max(...profile);
  const at = profile.indexOf(top);
  const count = profile.length;
  const rest = [...profile].filter(
    (_, i) => i !== at && i !== (at + 1) % count && i !== (at + count - 1) % count,
  );
  const spread = Math.sqrt(rest.reduce((sum, value) => sum + value * value, 0) / Math.max(1, rest.length));
  return top > spikeOverRest * spread;
}
