import { createContext, useContext } from "react";
import { useQueued } from "../entries/useQueued";

type NotesQueue = ReturnType<typeof useQueued>;

const NotesContext = createContext<NotesQueue | null>(null);

/** Where a job takes its notes. */
export const notesAddress = (jobId: number): string => `/jobs/${jobId}/notes`;

/** A job's connection to the server for its notes and photos: the queue that loses nothing. */
export function NotesProvider({
  jobId,
  children,
}: {
  readonly jobId: number;
  readonly children: React.ReactNode;
}) {
  const queued = useQueued(notesAddress(jobId));
  return <NotesContext value={queued}>{children}</NotesContext>;
}

export function useNotes(): NotesQueue {
  const queued = useContext(NotesContext);
  if (!queued) throw new Error("notes stand outside their provider");
  return queued;
}
