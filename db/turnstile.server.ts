import { setTimeout as pause } from "node:timers/promises";

/** Longest time a change of the database waits for started requests. */
const patienceMilliseconds = 15_000;
const againMilliseconds = 20;

let inside = 0;
let shut: Promise<void> | null = null;

/**
 * Lets a request in, or makes it wait while the database is being replaced. Resolves with the function that lets it
 * out again.
 */
export async function enter(): Promise<() => void> {
  while (shut) await shut;
  inside += 1;
  let isIn = true;
  return () => {
    if (isIn) inside -= 1;
    isIn = false;
  };
}

/** Does work while no other request is inside. Started requests end first, within limits, and new ones wait. */
export async function behindShutDoor<T>(work: () => Promise<T>): Promise<T> {
  while (shut) await shut;
  let open = (): void => {};
  shut = new Promise((resolve) => {
    open = resolve;
  });
  try {
    for (const until = Date.now() + patienceMilliseconds; inside > 1 && Date.now() < until; )
      await pause(againMilliseconds);
    return await work();
  } finally {
    shut = null;
    open();
  }
}
