/** A page waits no longer than this for entries. */
const mostMilliseconds = 300;

const storing = new Set<Promise<unknown>>();

/** An entry that is being stored; pages let it go first. */
export async function storedFirst<T>(entry: Promise<T>): Promise<T> {
  storing.add(entry);
  try {
    return await entry;
  } finally {
    storing.delete(entry);
  }
}

/**
 * Resolves once no entry is being stored. Storing one takes several calls to the database, and each of them would wait
 * while a page is computed.
 */
export async function entriesStored(): Promise<void> {
  const until = performance.now() + mostMilliseconds;
  for (let left = mostMilliseconds; storing.size > 0 && left > 0; left = until - performance.now())
    await Promise.race([
      Promise.allSettled(storing),
      new Promise((resolve) => {
        setTimeout(resolve, left);
      }),
    ]);
}
