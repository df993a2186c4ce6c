import { constants, PerformanceObserver } from "node:perf_hooks";
import { expect, test } from "@jest/globals";
import { collectWhileQuiet } from "./quietCollection.server";

/** What Node tells of a collection: which part of the heap, and why. */
interface Collection {
  readonly kind: number;
  readonly flags: number;
}

/** The collections called for by hand while something is done. */
async function calledFor(act: () => void): Promise<Collection[]> {
  const seen: Collection[] = [];
  const observer = new PerformanceObserver((list) => {
    for (const { detail } of list.getEntries()) seen.push(detail as Collection);
  });
  observer.observe({ entryTypes: ["gc"] });
  act();
  await new Promise((resolve) => setTimeout(resolve, 200));
  observer.disconnect();
  return seen.filter(({ flags }) => flags & constants.NODE_PERFORMANCE_GC_FLAGS_FORCED);
}

test("the young part of the heap is collected, and not the whole, each time it is called for", async () => {
  expect(await calledFor(() => undefined)).toEqual([]);
  const found = await calledFor(() => {
    collectWhileQuiet();
    collectWhileQuiet();
  });
  expect(found.map(({ kind }) => kind)).toEqual([
    constants.NODE_PERFORMANCE_GC_MINOR,
    constants.NODE_PERFORMANCE_GC_MINOR,
  ]);
});
