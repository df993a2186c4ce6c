import { startTransition, useEffect, useState } from "react";

/**
 * Calls back once the next frame has been painted.
 * @returns cancels it
 */
export function afterPaint(drawn: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  // The frame's layout and painting come after this callback and before any timer it sets.
  const frame = requestAnimationFrame(() => {
    timer = setTimeout(drawn);
  });
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
  };
}

/**
 * A value one frame late, rendered when other work allows, so that it does not delay what must be seen first. A
 * deferred value alone is not enough: if it renders quickly it is done before the frame, including its layout.
 */
export function usePainted<T>(value: T): T {
  const [painted, setPainted] = useState(() => value);
  useEffect(() => afterPaint(() => startTransition(() => setPainted(() => value))), [value]);
  return painted;
}
