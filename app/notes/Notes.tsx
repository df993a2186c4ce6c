import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { keepFile } from "../entries/attachedFiles";
import type { NoteLine } from "../job/jobView.server";
import { mostPhotoBytes, photoTooLarge } from "../job/photoLimit";
import { textFields } from "../text/formText";
import { randomId } from "../text/randomId";
import { useNotes } from "./useNotes";

/** The subject of a note: a reading, a line of work, or the whole job. */
export interface NoteSubject {
  readonly reading: string | null;
  readonly work?: string;
  readonly title: string;
}

interface NoteDialogProps {
  /** Null while no note is being written. */
  readonly subject: NoteSubject | null;
  readonly onClose: () => void;
}

/** The text of a note's form, and its photo if one is chosen. */
function noteOf(form: HTMLFormElement) {
  const fields = textFields(new FormData(form));
  const photo = new FormData(form).get("photo");
  return { fields, photo: photo instanceof File && photo.size > 0 ? photo : null };
}

/** Words and a photo about a reading or the job. The form stays until the server has stored the note or is away. */
export function NoteDialog({ subject, onClose }: NoteDialogProps) {
  const [sent, setSent] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { send, pending, away, refused } = useNotes();
  const save = async (form: HTMLFormElement): Promise<void> => {
    const { fields, photo } = noteOf(form);
    const id = randomId();
    setProblem(null);
    if (photo && photo.size > mostPhotoBytes) return setProblem(photoTooLarge);
    try {
      if (photo) await keepFile(id, photo);
    } catch {
      return setProblem("This browser has no room to keep the photo. Save note without it.");
    }
    const words = `note: ${fields.words || "a photo"}`;
    send(
      { ...fields, intent: "note", reading: subject?.reading ?? "", work: subject?.work ?? "" },
      words,
      id,
      photo ? "photo" : undefined,
    );
    setSent(id);
  };
  const waits = pending.some(({ id }) => id === sent);
  const wrong = problem ?? (refused && refused.id === sent ? refused.problem : null);
  const busy = sent !== null && waits && !away;
  useEffect(() => {
    if (sent === null || busy || wrong !== null) return;
    setSent(null);
    onClose();
  }, [sent, busy, wrong, onClose]);
  return (
    <Dialog.Root open={subject !== null} onOpenChange={(open) => open || onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Dialog.Content
          aria-describedby={undefined}
          className="sheet-card fixed top-1/2 left-1/2 z-50 w-[min(92vw,30rem)] -translate-x-1/2 -translate-y-1/2 p-5"
        >
          <Dialog.Title className="text-lg font-bold">{subject?.title}</Dialog.Title>
          <NoteForm save={save} problem={wrong} busy={busy} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Notes in the order they were made; each can be deleted and restored. */
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
  const { send } = useNotes();
  const strike = (): void => {
    const struck = note.struck ? "no" : "yes";
    send({ intent: "strike", id: note.id, struck }, `a note ${note.struck ? "restored" : "deleted"}`);
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
          <a href={address} target="_blank" rel="noreferrer" aria-label="Show the photo at full size">
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
      </div>
      <span className="figures text-soft">{note.time}</span>
      <button
        type="button"
        className="min-h-11 px-1 underline"
        onClick={strike}
        aria-label={`${note.struck ? "Restore" : "Delete"} the note${note.words ? `: ${note.words.slice(0, 40)}` : ""}`}
      >
        {note.struck ? "Restore" : "Delete"}
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
        <Dialog.Close className="btn">Cancel</Dialog.Close>
        <button type="submit" className="btn btn-main" disabled={busy}>
          {busy ? "Saving" : "Save note"}
        </button>
      </div>
    </form>
  );
}
