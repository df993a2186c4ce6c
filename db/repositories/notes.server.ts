import type { JobRefusal } from "@core/records/jobStage";
import { NoteRow, PhotoRow } from "../models/entryModels.server";
import { always, writeToJob } from "./jobGate.server";

/** A note on a job: words, a photo, or both; about one reading, one line of work or the whole job. */
export interface Note {
  readonly id: string;
  readonly readingId: string | null;
  readonly workId: string | null;
  readonly words: string;
  readonly photo: { readonly width: number; readonly height: number } | null;
  readonly takenAt: Date;
  readonly struckAt: Date | null;
}

/** A stored photo: decoded and encoded again, so that only the picture of the sent file remains. */
export interface Photo {
  readonly width: number;
  readonly height: number;
  readonly jpeg: Buffer;
}

/** A job's notes, oldest first, including deleted ones. */
export async function notesOf(jobId: number): Promise<Note[]> {
  const rows = await NoteRow.findAll({ where: { jobId }, order: [["takenAt", "ASC"]] });
  if (rows.length === 0) return [];
  const photos = await PhotoRow.findAll({
    where: { noteId: rows.map(({ id }) => id) },
    attributes: ["noteId", "width", "height"],
  });
  const photoOf = new Map(photos.map(({ noteId, width, height }) => [noteId, { width, height }]));
  return rows.map(({ id, readingId, workId, words, takenAt, struckAt }) => ({
    id,
    readingId: readingId ?? null,
    workId: workId ?? null,
    words,
    photo: photoOf.get(id) ?? null,
    takenAt,
    struckAt: struckAt ?? null,
  }));
}

export interface NewNote {
  /** Made where the note was written; the same note sent twice is stored once. */
  readonly id: string;
  readonly jobId: number;
  readonly readingId: string | null;
  readonly workId?: string | null;
  readonly words: string;
  readonly takenAt: Date;
}

/** Stores a note with its photo, even on a closed or deleted job; resolves once both are on disk. */
export const addNote = (note: NewNote, photo: Photo | null): Promise<JobRefusal | null> =>
  writeToJob(
    note.jobId,
    always,
    async (transaction) => {
      await NoteRow.create({ ...note }, { transaction });
      if (photo) await PhotoRow.create({ noteId: note.id, ...photo }, { transaction });
    },
    (transaction) => NoteRow.findByPk(note.id, { attributes: ["jobId"], transaction }),
  );

/** Deletes a note, or restores it. */
export const deleteNote = (jobId: number, id: string, struckAt: Date | null): Promise<JobRefusal | null> =>
  writeToJob(jobId, always, (transaction) =>
    NoteRow.update({ struckAt }, { where: { id, jobId }, transaction }),
  );

/** The photo of a job's note; null if there is none. */
export async function findPhoto(jobId: number, noteId: string): Promise<Photo | null> {
  const note = await NoteRow.findOne({ where: { id: noteId, jobId } });
  const row = note ? await PhotoRow.findByPk(noteId) : null;
  return row ? { width: row.width, height: row.height, jpeg: row.jpeg } : null;
}
