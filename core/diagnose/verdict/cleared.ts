import type { Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { perCircuit } from "../../predict/tables/perCircuit";
import type { Belief } from "../belief/belief";
import { type Expectation, expectedAt, othersOdds, readingOdds, type Support } from "../explain/expectation";
import { type Cited, cite } from "../explain/reasons";

/** A part the readings have all but cleared, and the reading that did it. */
export interface Cleared {
  readonly part: string;
  /** The strongest reading against it. */
  readonly by: Cited;
  /**
   * Its likeliest remaining fault, that fault's prediction, and how many times likelier other faults made the reading.
   */
  readonly fault: string;
  readonly expected: Expectation;
  readonly times: number;
}

const clearBelow = 0.004;
const fallenBy = 3;

/** True if the belief was under suspicion before any reading and is not any more. */
export const isCleared = (now: number, before: number): boolean =>
  now < clearBelow && now * fallenBy < before;

/** Suspects by the part they would replace. A part that no wire goes to has no faults to be cleared of. */
const variantsByPart = perCircuit((compiled): ReadonlyMap<string, readonly number[]> => {
  const found = new Map<string, number[]>();
  const { parts, wires } = compiled.netlist.circuit;
  const wired = new Set(wires.flatMap(({ from, to }) => [from, to].map((end) => end.split(".")[0])));
  const loose = new Set(parts.flatMap(({ id }) => (wired.has(id) ? [] : [id])));
  compiled.variants.forEach(({ fault }, variant) => {
    for (const part of fault.parts)
      if (!loose.has(part)) found.set(part, [...(found.get(part) ?? []), variant]);
  });
  return found;
});

interface PartCleared {
  readonly part: string;
  readonly variants: readonly number[];
}

/** Parts that were under suspicion before any reading and are not any more, with their faults. */
export function partsCleared(compiled: CompiledCircuit, belief: Belief): PartCleared[] {
  return [...variantsByPart(compiled)].flatMap(([part, variants]) => {
    const now = variants.reduce((sum, variant) => sum + (belief.variants[variant] as number), 0);
    const before = variants.reduce((sum, variant) => sum + (compiled.variants[variant]?.prior ?? 0), 0);
    return isCleared(now, before) ? [{ part, variants }] : [];
  });
}

/** The parts that are cleared, each with the strongest reading against its faults as now believed. */
export function clearedParts(compiled: CompiledCircuit, belief: Belief, support: Support): Cleared[] {
  if (belief.readings.length === 0) return [];
  return partsCleared(compiled, belief).map(({ part, variants }) => {
    const own = readingOdds(support, variants);
    const others = othersOdds(support, variants);
    const ratios = own.map((odds, i) => (others[i] as number) / Math.max(1e-9, odds));
    const worst = ratios.indexOf(Math.max(...ratios));
    const likeliest = variants.reduce((best, variant) =>
      (belief.variants[variant] as number) > (belief.variants[best] as number) ? variant : best,
    );
    return {
      part,
      by: cite(belief, worst),
      fault: compiled.variants[likeliest]?.id ?? part,
      expected: expectedAt(compiled, belief.readings[worst] as Reading, likeliest),
      times: ratios[worst] as number,
    };
  });
}
