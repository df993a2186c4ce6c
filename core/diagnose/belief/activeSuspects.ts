import { notListed, type Repair } from "../../fault/repair";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import type { RowCells } from "../../predict/tables/setupTable";
import type { Belief } from "./belief";
import { entropyBits } from "./entropy";

/** Suspects below this belief are ignored when tests are weighed. */
const coverShare = 0.99;
const mostVariants = 70;
/** The likeliest suspects are weighed in more sampled vehicles than the others. */
const leaders = 24;
const leaderDraws = 10;
const otherDraws = 4;

export interface Active {
  readonly variants: readonly number[];
  /** Repair of each, as an index into `repairs`. */
  readonly repairOf: readonly number[];
  readonly repairs: readonly Repair[];
  readonly unknown: number;
  /** Entropy of the repair at present, in bits. */
  readonly entropy: number;
}

/** Suspects in the sampled vehicles that carry their belief, as one flat list of weights. */
export interface Cells {
  readonly variant: Int32Array;
  readonly draw: Int32Array;
  readonly repair: Int32Array;
  readonly weight: Float64Array;
  /** The same by table row; an intermittent fault takes two rows. */
  readonly rows: RowCells;
}

/** The suspects that carry nearly all of the belief, likeliest first; the rest counts as unknown. */
export function activeSuspects(compiled: CompiledCircuit, belief: Belief): Active {
  const order: number[] = [];
  for (let variant = 0; variant < belief.variants.length; variant++)
    if ((belief.variants[variant] as number) > leastWeight) order.push(variant);
  order.sort((a, b) => (belief.variants[b] as number) - (belief.variants[a] as number));
  const variants: number[] = [];
  let covered = belief.unknown;
  for (const variant of order) {
    if (covered >= coverShare || variants.length >= mostVariants) break;
    variants.push(variant);
    covered += belief.variants[variant] as number;
  }
  const repairs: Repair[] = [notListed];
  const index = new Map<Repair, number>([[notListed, 0]]);
  const repairOf = variants.map((variant) => {
    const repair = compiled.variants[variant]?.repair ?? notListed;
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

/** A suspect, or one sampled vehicle with it, below this belief is left out. */
const leastWeight = 1e-9;

/**
 * Indices of the largest weights, largest first, by insertion.
 * @param kept receives up to `most` indices
 * @returns their number
 */
function heaviest(weights: Float64Array, kept: Int32Array, most: number): number {
  let count = 0;
  for (let sample = 0; sample < weights.length; sample++) {
    const weight = weights[sample] as number;
    if (weight <= leastWeight) continue;
    let place = Math.min(count, most - 1);
    if (count === most && (weights[kept[place] as number] as number) >= weight) continue;
    while (place > 0 && (weights[kept[place - 1] as number] as number) < weight) {
      kept[place] = kept[place - 1] as number;
      place -= 1;
    }
    kept[place] = sample;
    if (count < most) count += 1;
  }
  return count;
}

/** Each suspect in its most believed sampled vehicles, which carry all its weight between them. */
export function cellsOf(compiled: CompiledCircuit, belief: Belief, active: Active): Cells {
  const samples = compiled.samples.length;
  const room = active.variants.length * leaderDraws;
  const cells = {
    variant: new Int32Array(room),
    draw: new Int32Array(room),
    repair: new Int32Array(room),
    weight: new Float64Array(room),
  };
  const rows = {
    row: new Int32Array(2 * room),
    draw: new Int32Array(2 * room),
    repair: new Int32Array(2 * room),
    weight: new Float64Array(2 * room),
  };
  const kept = new Int32Array(leaderDraws);
  let cell = 0;
  let rowCell = 0;
  active.variants.forEach((variant, i) => {
    const weights = belief.joint.subarray(variant * samples, (variant + 1) * samples);
    const count = heaviest(weights, kept, i < leaders ? leaderDraws : otherDraws);
    let sum = 0;
    for (let place = 0; place < count; place++) sum += weights[kept[place] as number] as number;
    const scale = sum > 0 ? (belief.variants[variant] as number) / sum : 0;
    const repair = active.repairOf[i] as number;
    const own = compiled.variants[variant]?.rows ?? [];
    for (let place = 0; place < count; place++) {
      const sample = kept[place] as number;
      const weight = scale * (weights[sample] as number);
      cells.variant[cell] = variant;
      cells.draw[cell] = sample;
      cells.repair[cell] = repair;
      cells.weight[cell++] = weight;
      for (const { row, share } of own) {
        rows.row[rowCell] = row;
        rows.draw[rowCell] = sample;
        rows.repair[rowCell] = repair;
        rows.weight[rowCell++] = share * weight;
      }
    }
  });
  return {
    variant: cells.variant.subarray(0, cell),
    draw: cells.draw.subarray(0, cell),
    repair: cells.repair.subarray(0, cell),
    weight: cells.weight.subarray(0, cell),
    rows: {
      row: rows.row.subarray(0, rowCell),
      draw: rows.draw.subarray(0, rowCell),
      repair: rows.repair.subarray(0, rowCell),
      weight: rows.weight.subarray(0, rowCell),
    },
  };
}
