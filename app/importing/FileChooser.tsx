import { useRef, useState } from "react";
import { useRevalidator } from "react-router";
import type { BundleLine } from "../shelf/bundle.server";

/** The server's answer to a file. */
export interface Answer {
  readonly problem: string | null;
  /** What a bundle of a shelf would change. */
  readonly lines?: readonly BundleLine[] | null;
}

/** Sends a file as a plain request body rather than a form, so that the server need not hold all of it in memory. */
async function sendFile(to: string, file: File, signal: AbortSignal): Promise<Answer> {
  try {
    const answer = await fetch(to, {
      method: "POST",
      headers: { "Content-Type": "application/octet-stream" },
      body: file,
      signal,
    });
    if (answer.headers.get("Content-Type")?.includes("json")) return (await answer.json()) as Answer;
    return {
      problem:
        answer.status === 413 ? "That file is too large." : `The server refused it (${answer.status}).`,
    };
  } catch {
    return {
      problem: signal.aborted
        ? "Stopped. Nothing changed."
        : "The server does not answer. Try again once it is back.",
    };
  }
}

interface FileChooserProps {
  readonly label: string;
  /** File types in the dialogue: `.csv,.json`. */
  readonly accept: string;
  /** The buttons: their texts, and the address each sends the file to. */
  readonly actions: readonly { readonly words: string; readonly to: string }[];
  readonly disabled: boolean;
  /** Called with the server's answer; the component itself shows any error. */
  readonly onAnswer?: (answer: Answer) => void;
}

/** Chooses and sends a file; the page is loaded again once the server has it. */
export function FileChooser({ label, accept, actions, disabled, onAnswer }: FileChooserProps) {
  const { revalidate } = useRevalidator();
  const input = useRef<HTMLInputElement>(null);
  const [sending, setSending] = useState<AbortController | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (to: string): Promise<void> => {
    const file = input.current?.files?.[0];
    if (!file) return setProblem("Choose a file first.");
    const stop = new AbortController();
    setSending(stop);
    setProblem(null);
    const answer = await sendFile(to, file, stop.signal);
    setSending(null);
    setProblem(answer.problem);
    onAnswer?.(answer);
    await revalidate();
  };
  return (
    <div className="grid min-w-0 gap-2">
      <label className="grid min-w-0 gap-0.5 text-base text-soft">
        {label}
        <input ref={input} type="file" accept={accept} className="field w-full min-w-0 text-ink" />
      </label>
      {problem && (
        <p role="alert" className="whitespace-pre-line text-danger">
          {problem}
        </p>
      )}
      <p className="flex flex-wrap gap-3">
        {actions.map(({ words, to }) => (
          <button
            key={to}
            type="button"
            className="btn"
            disabled={disabled || sending !== null}
            onClick={() => void send(to)}
          >
            {words}
          </button>
        ))}
        {sending && (
          <>
            <span role="status" className="self-center">
              Checking the file
            </span>
            <button type="button" className="btn" onClick={() => sending.abort()}>
              Stop
            </button>
          </>
        )}
      </p>
    </div>
  );
}
