import { useEffect } from "react";
import { useRevalidator } from "react-router";

const againMilliseconds = 500;

interface ImportProgressProps {
  readonly words: string;
  /** Share done; null where it is not known. */
  readonly share: number | null;
}

/** Work under way on the server: how far it is, asked for again and again while the page is open. */
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
