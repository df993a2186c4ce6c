import { NoteRow, ReadingRow } from "../models.server";

interface Kept {
  readonly id: string;
  readonly struckAt?: Date | null;
}

const digest = (rows: readonly Kept[]): string =>
  `${rows.length}-${rows.flatMap(({ struckAt }, place) => (struckAt ? [place + 1] : [])).join(".")}`;

/** A text that changes whenever a reading or a note of the job is added, struck out or put back. */
export async function jobVersion(jobId: number): Promise<string> {
  const asked = { where: { jobId }, attributes: ["id", "struckAt"] };
  const [readings, notes] = await Promise.all([
    ReadingRow.findAll({ ...asked, order: [["number", "ASC"]] }),
    NoteRow.findAll({ ...asked, order: [["takenAt", "ASC"]] }),
  ]);
  return `${digest(readings)} ${digest(notes)}`;
}
