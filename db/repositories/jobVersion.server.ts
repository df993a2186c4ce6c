import { NoteRow, ReadingRow } from "../models/entryModels.server";

interface Kept {
  readonly struckAt?: Date | null;
}

const digest = (rows: readonly Kept[]): string =>
  `${rows.length}-${rows.flatMap(({ struckAt }, place) => (struckAt ? [place + 1] : [])).join(".")}`;

/** A text that changes whenever one of a job's readings or notes, in order, is added, deleted or restored. */
export const versionOf = (readings: readonly Kept[], notes: readonly Kept[]): string =>
  `${digest(readings)} ${digest(notes)}`;

/** The same for a stored job. */
export async function jobVersion(jobId: number): Promise<string> {
  const asked = { where: { jobId }, attributes: ["id", "struckAt"] };
  const [readings, notes] = await Promise.all([
    ReadingRow.findAll({ ...asked, order: [["number", "ASC"]] }),
    NoteRow.findAll({ ...asked, order: [["takenAt", "ASC"]] }),
  ]);
  return versionOf(readings, notes);
}
