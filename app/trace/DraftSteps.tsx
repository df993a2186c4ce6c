import { useEffect } from "react";

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);

interface DraftStepsProps {
  readonly undo: boolean;
  readonly redo: boolean;
  readonly waiting: number;
  /** True while the server does not answer. */
  readonly away: boolean;
  readonly send: (fields: Record<string, string>) => void;
}

/** Undo and redo, also by Ctrl+Z and Ctrl+Shift+Z unless text is being typed. */
export function DraftSteps({ undo, redo, waiting, away, send }: DraftStepsProps) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z" || typing(event.target))
        return;
      event.preventDefault();
      send({ intent: event.shiftKey ? "redo" : "undo" });
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [send]);
  return (
    <div className="flex items-center gap-2">
      <span role="status" className="text-base text-soft" data-waiting={waiting}>
        {away
          ? "The server does not answer. Changes are kept in this browser"
          : waiting > 0
            ? "storing…"
            : "all saved"}
      </span>
      <button
        type="button"
        onClick={() => send({ intent: "undo" })}
        className="btn"
        disabled={!undo}
        aria-keyshortcuts="Control+Z"
      >
        Undo
      </button>
      <button
        type="button"
        onClick={() => send({ intent: "redo" })}
        className="btn"
        disabled={!redo}
        aria-keyshortcuts="Control+Shift+Z"
      >
        Redo
      </button>
    </div>
  );
}
