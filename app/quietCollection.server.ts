import { setFlagsFromString } from "node:v8";
import { runInNewContext } from "node:vm";

type Collect = (options: { type: "minor" }) => void;

/** V8's own collector, to be called by hand; null where this engine has none to call. */
function collector(): Collect | null {
  setFlagsFromString("--expose-gc");
  const found: unknown = runInNewContext("globalThis.gc");
  return typeof found === "function" ? (found as Collect) : null;
}

let collect: Collect | null | undefined;

/**
 * Throws away what the last requests left in the young part of the heap: one or two milliseconds now, while nobody waits,
 * for 10 to 60 in the middle of an answer later. What is in use then and dead a moment after is not carried into the old part
 * either, whose collection takes longest of all.
 */
export function collectWhileQuiet(): void {
  if (collect === undefined) collect = collector();
  collect?.({ type: "minor" });
}
