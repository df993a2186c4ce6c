import type { CompiledCircuit } from "../predict/compiledCircuit";
import type { RowCells } from "../predict/setupTable";
import type { Belief } from "./belief";
import { entropyBits } from "./entropy";

/** Suspects too unlikely to steer the next look are left out of the weighing, and more of the screening. */
const coverShare = 0.99;
export const mostVariants = 70;
export const mostScreened = 32;
/** Drawn vehicles a suspect is weighed in: a few to find the good looks, more to rank those. */
export const screeningDraws = 2;
export const rankingDraws = 10;

export interface Active {
  readonly variants: readonly number[];
  /** Repair of each, as an index into `repairs`. */
  readonly repairOf: readonly number[];
  readonly repairs: readonly string[];
  readonly unknown: number;
  /** Entropy of the repair as it stands, in bits. */
  readonly entropy: number;
}

/** Suspects in the drawn vehicles they are believed in, as one flat list of weights. */
export interface Cells {
  readonly variant: Int32Array;
  readonly draw: Int32Array;
  readonly repair: Int32Array;
  readonly weight: Float64Array;
  /** The same by table row, a fault that comes and goes as two. */
  readonly rows: RowCells;
}

export function activeSuspects(compiled: CompiledCircuit, belief: Belief): Active {
  const order = [...belief.variants.keys()].sort(
    (a, b) => (belief.variants[b] as number) - (belief.variants[a] as number),
  );
  const variants: number[] = [];
  let covered = belief.unknown;
  for (const variant of order) {
    if (covered >= coverShare || variants.length >= mostVariants) break;
    variants.push(variant);
    covered += belief.variants[variant] as number;
  }
  const repairs: string[] = ["unknown"];
  const index = new Map<string, number>([["unknown", 0]]);
  const repairOf = variants.map((variant) => {
    const repair = compiled.variants[variant]?.repair ?? "unknown";
    const known = index.get(repair);
    if (known !== undefined) return known;
    index.set(repair, repairs.length);
    return repairs.push(repair) - 1;
  });
  const prior = new Array<number>(repairs.length).fill(0);
  prior[0] = belief.unknown;
  variants.forEach((variant, i) => {
    const at = repairOf[i] as number;
    prior[at] = (prior[at] as number) + (belief.variants[variant] as number);
  });
  return {
    variants,
    repairOf,
    repairs,
    unknown: belief.unknown,
    entropy: entropyBits(prior),
  };
}

/** A vehicle in which a suspect is less likely than this is left out. */
const leastWeight = 1e-9;

/**
 * Places of the largest weights, largest first, by insertion.
 * @param kept filled with as many places as it has room for
 * @returns how many
 */
function heaviest(weights: Float64Array, kept: Int32Array): number {
  let count = 0;
  for (let draw = 0; draw < weights.length; draw++) {
    const weight = weights[draw] as number;
    if (weight <= leastWeight) continue;
    let place = Math.min(count, kept.length - 1);
    if (count === kept.length && (weights[kept[place] as number] as number) >= weight) continue;
    while (place > 0 && (weights[kept[place - 1] as number] as number) < weight) {
      kept[place] = kept[place - 1] as number;
      place -= 1;
    }
    kept[place] = draw;
    if (count < kept.length) count += 1;
  }
  return count;
}

/** Each suspect in its most believed vehicles, carrying the suspect's whole weight between them. */
export function cellsOf(
  compiled: CompiledCircuit,
  belief: Belief,
  active: Active,
  most: number,
  mostSuspects: number,
): Cells {
  const draws = compiled.draws.length;
  const found: { variant: number; draw: number; repair: number; weight: number }[] = [];
  const kept = new Int32Array(most);
  active.variants.slice(0, mostSuspects).forEach((variant, i) => {
    const weights = belief.joint.subarray(variant * draws, (variant + 1) * draws);
    const count = heaviest(weights, kept);
    let sum = 0;
    for (let place = 0; place < count; place++) sum += weights[kept[place] as number] as number;
    const scale = sum > 0 ? (belief.variants[variant] as number) / sum : 0;
    for (let place = 0; place < count; place++) {
      const draw = kept[place] as number;
      const repair = active.repairOf[i] as number;
      found.push({ variant, draw, repair, weight: scale * (weights[draw] as number) });
    }
  });
  const rows = found.flatMap(({ variant, draw, repair, weight }) =>
    (compiled.variants[variant]?.rows ?? []).map(({ row, share }) => ({
      row,
      draw,
      repair,
      weight: share * weight,
    })),
  );
  return {
    rows: {
      row: Int32Array.from(rows, ({ row }) => row),
      draw: Int32Array.from(rows, ({ draw }) => draw),
      repair: Int32Array.from(rows, ({ repair }) => repair),
      weight: Float64Array.from(rows, ({ weight }) => weight),
    },
    variant: Int32Array.from(found, ({ variant }) => variant),
    draw: Int32Array.from(found, ({ draw }) => draw),
    repair: Int32Array.from(found, ({ repair }) => repair),
    weight: Float64Array.from(found, ({ weight }) => weight),
  };
}
