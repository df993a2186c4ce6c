import { setFlagsFromString } from "node:v8";
import { runInNewContext } from "node:vm";

/** Collects the young part of the heap; without an argument the whole. */
type Collect = (part?: { type: "minor" }) => void;

/** V8 collects the old part of the heap once it has grown by a tenth, which is every tenth entry; memory is cheaper. */
const grownPercent = 150;

/** V8's own collector, to be called by hand; null where this engine has none to call. */
function collector(): Collect | null {
  setFlagsFromString(`--heap-growing-percent=${grownPercent}`);
  setFlagsFromString("--expose-gc");
  const found: unknown = runInNewContext("globalThis.gc");
  return typeof found === "function" ? (found as Collect) : null;
}

let known: { readonly collect: Collect | null } | null = null;

function collect(...part: Parameters<Collect>): void {
  known ??= { collect: collector() };
  known.collect?.(...part);
}

/**
 * Throws away what the last requests left in the young part of the heap: one or two milliseconds now, while nobody waits,
 * for 10 to 60 in the middle of an answer later. What is in use then and dead a moment after is not carried into the old part
 * either, whose collection takes longest of all.
 */
export const collectWhileQuiet = (): void => collect({ type: "minor" });

/** Throws away what a start left in the whole heap, before anybody comes. */
export const collectAfterStart = (): void => collect();
