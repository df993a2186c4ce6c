import { startTransition, useEffect, useState } from "react";

/**
 * Calls back once the next frame has been drawn.
 * @returns calls it off
 */
export function afterPaint(drawn: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  // The frame's layout and drawing come after this callback and before any timer it sets.
  const frame = requestAnimationFrame(() => {
    timer = setTimeout(drawn);
  });
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
  };
}

/**
 * A value one frame late, then drawn as other work allows: what shows it does not hold up what must be seen first. A deferred
 * value alone is no help there: where drawing it is quick it is done before the frame, and its layout with it.
 */
export function usePainted<T>(value: T): T {
  const [painted, setPainted] = useState(() => value);
  useEffect(() => afterPaint(() => startTransition(() => setPainted(() => value))), [value]);
  return painted;
}
