import { ChevronRight } from "lucide-react";
import { useState } from "react";

interface FoldProps {
  readonly title: string;
  readonly className?: string;
  /** Opened and closed from outside, if a key does it too. */
  readonly open?: boolean;
  readonly onOpen?: (open: boolean) => void;
  /** Whether it starts open. */
  readonly initially?: boolean;
  /** Keeps its content while it is closed, such as the fields of a form. */
  readonly keeps?: boolean;
  readonly children: React.ReactNode;
}

/** A part of the page that folds away; unless it keeps its content, that only renders while it is open. */
export function Fold({
  title,
  className = "",
  open,
  onOpen,
  initially = false,
  keeps = false,
  children,
}: FoldProps) {
  const [own, setOwn] = useState(initially);
  const shown = open ?? own;
  return (
    <details
      className={className}
      open={shown}
      onToggle={({ currentTarget }) => (onOpen ?? setOwn)(currentTarget.open)}
    >
      <summary className="flex min-h-11 cursor-pointer items-center gap-1.5 font-semibold">
        <ChevronRight
          aria-hidden="true"
          className={`size-4 shrink-0 text-soft transition-transform ${shown ? "rotate-90" : ""}`}
        />
        <span className="underline decoration-rule underline-offset-4">{title}</span>
      </summary>
      {(shown || keeps) && children}
    </details>
  );
}
