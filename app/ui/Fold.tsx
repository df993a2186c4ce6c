import { useState } from "react";

interface FoldProps {
  readonly title: string;
  readonly className?: string;
  /** Opened and closed from outside, if a key does it too. */
  readonly open?: boolean;
  readonly onOpen?: (open: boolean) => void;
  readonly children: React.ReactNode;
}

/** A part of the page that folds away; its content only renders while it is open. */
export function Fold({ title, className = "", open, onOpen, children }: FoldProps) {
  const [own, setOwn] = useState(false);
  const shown = open ?? own;
  return (
    <details
      className={className}
      open={shown}
      onToggle={({ currentTarget }) => (onOpen ?? setOwn)(currentTarget.open)}
    >
      <summary className="flex min-h-11 cursor-pointer items-center font-semibold">{title}</summary>
      {shown && children}
    </details>
  );
}
