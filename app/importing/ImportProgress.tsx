import { useEffect } from "react";
import { useRevalidator } from "react-router";

const againMilliseconds = 500;

interface ImportProgressProps {
  readonly words: string;
  /** Share done; null if unknown. */
  readonly share: number | null;
}

/** Work in progress on the server, polled while the page is open. */
export function ImportProgress({ words, share }: ImportProgressProps) {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    const again = setInterval(() => void revalidate(), againMilliseconds);
    return () => clearInterval(again);
  }, [revalidate]);
  return (
    <div role="status" className="grid gap-1">
      <p>{words}</p>
      <progress
        aria-label={words}
        max={1}
        {...(share === null ? {} : { value: share })}
        className="h-3 w-full accent-ink"
      />
    </div>
  );
}
