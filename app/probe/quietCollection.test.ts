import { constants, PerformanceObserver } from "node:perf_hooks";
import { expect, test } from "@jest/globals";
import { collectAfterStart, collectWhileQuiet } from "./quietCollection.server";

/** What Node tells of a collection: which part of the heap, and why. */
interface Collection {
  readonly kind: number;
  readonly flags: number;
}

/** The collections called for by hand while something is done. */
async function calledFor(act: () => void): Promise<Collection[]> {
  const seen: Collection[] = [];
  const observer = new PerformanceObserver((list) => {
    for (const { detail } of list.getEntries() as unknown as { detail: Collection }[]) seen.push(detail);
  });
  observer.observe({ entryTypes: ["gc"] });
  act();
  await new Promise((resolve) => setTimeout(resolve, 200));
  observer.disconnect();
  return seen.filter(({ flags }) => flags & constants.NODE_PERFORMANCE_GC_FLAGS_FORCED);
}

const { NODE_PERFORMANCE_GC_MINOR: young, NODE_PERFORMANCE_GC_MAJOR: whole } = constants;

test("while it is quiet the young part of the heap is collected alone, after a start the whole", async () => {
  expect(await calledFor(() => undefined)).toEqual([]);
  const quiet = await calledFor(() => {
    collectWhileQuiet();
    collectWhileQuiet();
  });
  expect(quiet.map(({ kind }) => kind)).toEqual([young, young]);
  expect((await calledFor(collectAfterStart)).map(({ kind }) => kind)).toContain(whole);
});
