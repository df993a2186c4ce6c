// Compared with JavaScript's own sets.
import { expect, test } from "@jest/globals";
import fc from "fast-check";
import {
  eachOutside,
  emptySet,
  has,
  include,
  joined,
  keyWithin,
  meet,
  meetOutside,
  type StepSet,
  within,
  without,
} from "./stepSet";

const size = 100;
const drawn = fc.uniqueArray(fc.nat(size - 1), { maxLength: 40 });

function setOf(steps: readonly number[]): StepSet {
  const set = emptySet(size);
  for (const step of steps) include(set, step);
  return set;
}
const stepsOf = (set: StepSet): number[] =>
  Array.from({ length: size }, (_, i) => i).filter((step) => has(set, step));
const sorted = (steps: Iterable<number>): number[] => [...steps].sort((a, b) => a - b);

test("sets of steps behave as sets, across their words of bits", () => {
  fc.assert(
    fc.property(drawn, drawn, drawn, (a, b, c) => {
      const [sa, sb, sc] = [new Set(a), new Set(b), new Set(c)];
      const [x, y, z] = [setOf(a), setOf(b), setOf(c)];
      expect(stepsOf(x)).toEqual(sorted(sa));
      expect(stepsOf(joined(x, y))).toEqual(sorted(new Set([...a, ...b])));
      expect(stepsOf(without(x, y))).toEqual(sorted(a.filter((step) => !sb.has(step))));
      expect(within(x, y)).toBe(a.every((step) => sb.has(step)));
      expect(meetOutside(x, y, z)).toBe(a.some((step) => sb.has(step) && !sc.has(step)));
      const seen: number[] = [];
      eachOutside(x, y, (step) => seen.push(step));
      expect(seen).toEqual(sorted(a.filter((step) => !sb.has(step))));
      const both = x.slice();
      meet(both, y);
      expect(stepsOf(both)).toEqual(sorted(a.filter((step) => sb.has(step))));
      // Two sets have the same key exactly if their intersections with the third are equal.
      const same = sorted(a.filter((s) => sc.has(s))).join() === sorted(b.filter((s) => sc.has(s))).join();
      expect(keyWithin(x, z) === keyWithin(y, z)).toBe(same);
      // The questions did not change the sets.
      expect(stepsOf(x)).toEqual(sorted(sa));
      expect(stepsOf(y)).toEqual(sorted(sb));
    }),
    { numRuns: 300, seed: 4 },
  );
});
