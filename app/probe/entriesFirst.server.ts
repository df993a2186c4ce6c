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
 * Resolves once no entry is being stored, so that nobody waits for "saved" while somebody's page is made: an entry asks
 * the database several times, and would wait for a piece of the page at each.
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
