import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type NominalColumn, NumberColumn, type WordColumn } from "../../predict/tables/nominalColumn";
import type { Active } from "./activeSuspects";
import type { Belief } from "./belief";

/** Number of suspects used in the screening; the ranking after it uses more. */
const mostScreened = 32;
/** Neighbouring bins of a display become one outcome, at most this many wide. */
const widestOutcome = 3;

/**
 * A coarse first weighing of every test from the nominal vehicle alone; thousands take a few milliseconds. It finds
 * the tests worth ranking in the sampled vehicles.
 */
export class Screening {
  private readonly variant: Int32Array;
  private readonly variantRepair: Int32Array;
  private readonly variantWeight: Float64Array;
  private readonly row: Int32Array;
  private readonly rowRepair: Int32Array;
  private readonly rowWeight: Float64Array;
  private readonly repairs: number;
  private readonly unknown: number;
  private readonly total: number;
  /** Entropy of the repair before the test, in nats. */
  private readonly before: number;
  private readonly joint: Float64Array;
  private readonly touched = new Uint8Array(2 * NumberColumn.most + 1);
  private readonly run: Float64Array;

  constructor(compiled: CompiledCircuit, belief: Belief, active: Active) {
    const variants = active.variants.slice(0, mostScreened);
    const rows = variants.flatMap((variant, i) =>
      (compiled.variants[variant]?.rows ?? []).map(({ row, share }) => ({
        row,
        repair: active.repairOf[i] as number,
        weight: share * (belief.variants[variant] as number),
      })),
    );
    this.variant = Int32Array.from(variants);
    this.variantRepair = Int32Array.from(variants, (_, i) => active.repairOf[i] as number);
    this.variantWeight = Float64Array.from(variants, (variant) => belief.variants[variant] as number);
    this.row = Int32Array.from(rows, ({ row }) => row);
    this.rowRepair = Int32Array.from(rows, ({ repair }) => repair);
    this.rowWeight = Float64Array.from(rows, ({ weight }) => weight);
    this.repairs = 1 + Math.max(0, ...this.variantRepair);
    this.unknown = active.unknown;
    const own = new Float64Array(this.repairs);
    own[0] = active.unknown;
    this.variantRepair.forEach((repair, i) => {
      own[repair] = (own[repair] as number) + (this.variantWeight[i] as number);
    });
    this.total = own.reduce((sum, weight) => sum + weight, 0);
    this.before = nats(this.total) - natsOf(own, 0, this.repairs);
    this.joint = new Float64Array((2 * NumberColumn.most + 1) * this.repairs);
    this.run = new Float64Array(this.repairs);
  }

  /** Expected information about the repair, in bits. */
  bits(column: NominalColumn): number {
    if (this.total <= 0) return 0;
    const after = column.gives === "word" ? this.afterWord(column) : this.afterNumber(column);
    return Math.max(0, (this.before - after) / (this.total * Math.LN2));
  }

  /** Remaining entropy times the total weight, over the words a test can give. */
  private afterWord(column: WordColumn): number {
    const { joint, repairs, variant } = this;
    const { outcomes } = column;
    joint.fill(0, 0, outcomes * repairs);
    for (let i = 0; i < variant.length; i++) {
      const place = column.at(variant[i] as number);
      const weight = this.variantWeight[i] as number;
      let at = this.variantRepair[i] as number;
      for (let outcome = 0; outcome < outcomes; outcome++, at += repairs)
        joint[at] = (joint[at] as number) + weight * (column.odds[place + outcome] as number);
    }
    let after = 0;
    for (let at = 0; at < outcomes * repairs; at += repairs) {
      joint[at] = (joint[at] as number) + this.unknown / outcomes;
      after += this.doubtIn(joint, at);
    }
    return after;
  }

  /** The same over the windows of a display. */
  private afterNumber(column: NumberColumn): number {
    const { joint, repairs, row, touched } = this;
    let low = Number.POSITIVE_INFINITY;
    let high = Number.NEGATIVE_INFINITY;
    for (let i = 0; i < row.length; i++) {
      const bin = column.binAt(row[i] as number) + NumberColumn.most;
      if (bin < low) low = bin;
      if (bin > high) high = bin;
      touched[bin] = 1;
      const at = bin * repairs + (this.rowRepair[i] as number);
      joint[at] = (joint[at] as number) + (this.rowWeight[i] as number);
    }
    const after = high - low < 1 ? this.before : this.afterRuns(low, high);
    for (let bin = low; bin <= high; bin++) {
      if (touched[bin] === 0) continue;
      touched[bin] = 0;
      joint.fill(0, bin * repairs, (bin + 1) * repairs);
    }
    return after;
  }

  private afterRuns(low: number, high: number): number {
    const count = this.eachRun(low, high, () => undefined);
    let after = 0;
    this.eachRun(low, high, () => {
      this.run[0] = (this.run[0] as number) + this.unknown / count;
      after += this.doubtIn(this.run, 0);
    });
    return after;
  }

  /** Gathers neighbouring bins into outcomes and passes each on; returns their number. */
  private eachRun(low: number, high: number, take: () => void): number {
    const { joint, repairs, run, touched } = this;
    let count = 0;
    for (let bin = low; bin <= high; bin++) {
      if (touched[bin] === 0) continue;
      run.fill(0);
      for (let wide = 0; wide < widestOutcome && bin <= high && touched[bin] === 1; wide++, bin++) {
        const from = bin * repairs;
        for (let repair = 0; repair < repairs; repair++)
          run[repair] = (run[repair] as number) + (joint[from + repair] as number);
      }
      bin -= 1;
      count += 1;
      take();
    }
    return count;
  }

  /** An outcome's weight times the entropy of the repair in it, in nats. */
  private doubtIn(weights: Float64Array, from: number): number {
    let sum = 0;
    let logs = 0;
    for (let i = from; i < from + this.repairs; i++) {
      const weight = weights[i] as number;
      if (weight <= 0) continue;
      sum += weight;
      logs += weight * Math.log(weight);
    }
    return nats(sum) - logs;
  }
}

const nats = (weight: number): number => (weight > 0 ? weight * Math.log(weight) : 0);

function natsOf(weights: Float64Array, from: number, count: number): number {
  let sum = 0;
  for (let i = from; i < from + count; i++) sum += nats(weights[i] as number);
  return sum;
}
