import { useEffect, useState } from "react";

/**
 * What an address of this server answers, asked again when it changes; the last answer stands until the next one
 * comes, and a server that is away changes nothing.
 * @param address null asks nothing
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
        // Away, or no longer wanted.
      }
    };
    void ask();
    return () => stopped.abort();
  }, [address]);
  return { answer: address === null ? null : (held?.answer ?? null), current: held?.address === address };
}
