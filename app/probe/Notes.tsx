import { Dialog } from "radix-ui";
import { useRef, useState } from "react";
import { useEntries } from "../entries/useEntries";
import type { NoteLine } from "../job/jobView.server";
import { randomId } from "../text/randomId";

/** Sends a note's form; what is wrong comes back in words, and nothing typed is lost. */
async function sendNote(jobId: number, body: FormData): Promise<string | null> {
  try {
    const answer = await fetch(`/jobs/${jobId}/notes`, { method: "POST", body });
    if (answer.ok) return null;
    if (answer.status === 413) return "That photo is too large: at most 12 MB.";
    if (answer.status === 422) return ((await answer.json()) as { problem: string }).problem;
    return `The server refused it (${answer.status}).`;
  } catch {
    return "The server does not answer. The note stays here: save it again once it is back.";
  }
}

/** What a note is about: a reading by its id, or the job as a whole. */
export interface NoteSubject {
  readonly reading: string | null;
  readonly title: string;
}

interface NoteDialogProps {
  readonly jobId: number;
  /** Null while no note is being written. */
  readonly subject: NoteSubject | null;
  readonly onClose: () => void;
}

/** Words and a photo, about a reading or the job. */
export function NoteDialog({ jobId, subject, onClose }: NoteDialogProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const id = useRef("");
  const { refresh } = useEntries();
  const save = async (form: HTMLFormElement): Promise<void> => {
    const body = new FormData(form);
    body.set("intent", "note");
    // One id for as long as the note is not stored: sent twice it is stored once.
    id.current ||= randomId();
    body.set("id", id.current);
    body.set("reading", subject?.reading ?? "");
    setBusy(true);
    const wrong = await sendNote(jobId, body);
    setBusy(false);
    setProblem(wrong);
    if (wrong !== null) return;
    id.current = "";
    onClose();
    await refresh();
  };
  return (
    <Dialog.Root open={subject !== null} onOpenChange={(open) => open || onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Dialog.Content
          aria-describedby={undefined}
          className="sheet-card fixed top-1/2 left-1/2 z-50 w-[min(92vw,30rem)] -translate-x-1/2 -translate-y-1/2 p-5"
        >
          <Dialog.Title className="text-lg font-bold">{subject?.title}</Dialog.Title>
          <NoteForm save={save} problem={problem} busy={busy} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Notes in the order they were made; each can be struck out and put back. */
export function Notes({ jobId, notes }: { jobId: number; notes: readonly NoteLine[] }) {
  if (notes.length === 0) return null;
  return (
    <ul className="mb-1 ml-4 grid gap-1 border-l-2 border-rule pl-2 text-base">
      {notes.map((note) => (
        <NoteItem key={note.id} jobId={jobId} note={note} />
      ))}
    </ul>
  );
}

function NoteItem({ jobId, note }: { jobId: number; note: NoteLine }) {
  const { refresh } = useEntries();
  const [problem, setProblem] = useState<string | null>(null);
  const strike = async (): Promise<void> => {
    const body = new FormData();
    body.set("intent", "strike");
    body.set("id", note.id);
    body.set("struck", note.struck ? "no" : "yes");
    const wrong = await sendNote(jobId, body);
    setProblem(wrong);
    if (wrong === null) await refresh();
  };
  const { photo } = note;
  const address = `/jobs/${jobId}/photos/${note.id}`;
  return (
    <li data-note={note.id} className="flex items-start gap-2">
      <div className="min-w-0 grow">
        {note.words && (
          <p className={`break-words whitespace-pre-wrap ${note.struck ? "text-soft line-through" : ""}`}>
            {note.words}
          </p>
        )}
        {photo && !note.struck && (
          <a href={address} target="_blank" rel="noreferrer" aria-label="The photo at full size">
            <img
              src={address}
              width={photo.width}
              height={photo.height}
              alt={note.words || "taken with this note"}
              loading="lazy"
              className="mt-1 max-h-40 w-auto rounded-card border border-rule"
            />
          </a>
        )}
        {problem && (
          <p role="alert" className="text-danger">
            {problem}
          </p>
        )}
      </div>
      <span className="figures text-soft">{note.time}</span>
      <button
        type="button"
        className="min-h-11 px-1 underline"
        onClick={() => void strike()}
        aria-label={`${note.struck ? "Put back" : "Strike out"} the note${note.words ? `: ${note.words.slice(0, 40)}` : ""}`}
      >
        {note.struck ? "put back" : "strike"}
      </button>
    </li>
  );
}

interface NoteFormProps {
  readonly save: (form: HTMLFormElement) => Promise<void>;
  readonly problem: string | null;
  readonly busy: boolean;
}

/** The note and its photo. */
function NoteForm({ save, problem, busy }: NoteFormProps) {
  return (
    <form
      className="mt-3 grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void save(event.currentTarget);
      }}
    >
      <label className="grid gap-1 text-base text-soft">
        Words
        <textarea name="words" maxLength={1000} rows={4} className="field w-full text-ink" />
      </label>
      <label className="grid gap-1 text-base text-soft">
        Photo (JPEG, PNG or WebP, at most 12 MB)
        <input type="file" name="photo" accept="image/jpeg,image/png,image/webp" className="field w-full" />
      </label>
      {problem && (
        <p role="alert" className="text-danger">
          {problem}
        </p>
      )}
      <div className="flex justify-end gap-2">
        <Dialog.Close className="btn">Leave it</Dialog.Close>
        <button type="submit" className="btn btn-main" disabled={busy}>
          {busy ? "Saving" : "Save the note"}
        </button>
      </div>
    </form>
  );
}
