import { setTimeout as pause } from "node:timers/promises";

/** Longest that a change of the database waits for requests that have begun. */
const patienceMilliseconds = 15_000;
const againMilliseconds = 20;

let inside = 0;
let shut: Promise<void> | null = null;

/** Lets a request in; while the database is being replaced it waits before the door. Resolves with what lets it out again. */
export async function enter(): Promise<() => void> {
  while (shut) await shut;
  inside += 1;
  let isIn = true;
  return () => {
    if (isIn) inside -= 1;
    isIn = false;
  };
}

/**
 * Does work while no request is inside but the one that asks for it: those that have begun end first, within limits, and those
 * that come wait.
 */
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
