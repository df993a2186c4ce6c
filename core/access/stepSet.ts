/** A set of a graph's steps as bits, 32 in a word; step `i` is bit `i % 32` of word `i >> 5`. */
export type StepSet = Int32Array;

/** An empty set with room for a number of steps. */
export const emptySet = (steps: number): StepSet => new Int32Array((steps + 31) >> 5);

/** Whether a step, by index, is in a set. */
export const has = (set: StepSet, step: number): boolean =>
  ((set[step >> 5] as number) & (1 << (step & 31))) !== 0;

/** Adds one step, by index, to a set. */
export function include(set: StepSet, step: number): void {
  (set[step >> 5] as number) |= 1 << (step & 31);
}

/** Adds all steps of another set. */
export function join(into: StepSet, other: StepSet): void {
  for (let w = 0; w < into.length; w++) (into[w] as number) |= other[w] as number;
}

/** Keeps only the steps that another set also has. */
export function meet(into: StepSet, other: StepSet): void {
  for (let w = 0; w < into.length; w++) (into[w] as number) &= other[w] as number;
}

/** The union of two sets, as a new set. */
export function joined(a: StepSet, b: StepSet): StepSet {
  const sum = a.slice();
  join(sum, b);
  return sum;
}

/** The difference of two sets. */
export function without(a: StepSet, b: StepSet): StepSet {
  const left = a.slice();
  for (let w = 0; w < left.length; w++) (left[w] as number) &= ~(b[w] as number);
  return left;
}

/** Whether a set is a subset of another. */
export function within(inner: StepSet, outer: StepSet): boolean {
  for (let w = 0; w < inner.length; w++)
    if (((inner[w] as number) & ~(outer[w] as number)) !== 0) return false;
  return true;
}

/** Whether two sets share a step that a third does not have. */
export function meetOutside(a: StepSet, b: StepSet, taken: StepSet): boolean {
  for (let w = 0; w < a.length; w++)
    if (((a[w] as number) & (b[w] as number) & ~(taken[w] as number)) !== 0) return true;
  return false;
}

/** Calls a function for every step of a set that another does not have. */
export function eachOutside(set: StepSet, taken: StepSet, visit: (step: number) => void): void {
  for (let w = 0; w < set.length; w++) {
    let word = (set[w] as number) & ~(taken[w] as number);
    while (word !== 0) {
      const bit = 31 - Math.clz32(word & -word);
      visit((w << 5) + bit);
      word &= word - 1;
    }
  }
}

/** A text that is equal for sets with the same intersection with a third. */
export function keyWithin(set: StepSet, of: StepSet): string {
  let key = "";
  for (let w = 0; w < set.length; w++) key += `${((set[w] as number) & (of[w] as number)).toString(36)},`;
  return key;
}
