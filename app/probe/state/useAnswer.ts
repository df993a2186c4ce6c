import { useEffect, useState } from "react";

/**
 * The answer of an address of this server, requested again when it changes. The last answer stays until the next one
 * arrives, and also while the server is away.
 * @param address null requests nothing
 */
export function useAnswer<T>(address: string | null): {
  readonly answer: T | null;
  readonly current: boolean;
} {
  const [held, setHeld] = useState<{ address: string; answer: T } | null>(null);
  useEffect(() => {
    if (address === null) return;
    const stopped = new AbortController();
    const ask = async (): Promise<void> => {
      try {
        const response = await fetch(address, { signal: stopped.signal });
        if (response.ok) setHeld({ address, answer: (await response.json()) as T });
      } catch {
        // The server is away, or the answer is no longer needed.
      }
    };
    void ask();
    return () => stopped.abort();
  }, [address]);
  return { answer: address === null ? null : (held?.answer ?? null), current: held?.address === address };
}
