import { EventRow } from "../models/memoryModels.server";
import { storedColumns } from "../storedColumns";

/** One line of a job's audit trail: what was done, when, and the database's own words on it. */
export interface TrailLine {
  readonly id: number;
  readonly at: Date;
  readonly what: string;
  readonly about: Readonly<Record<string, unknown>>;
}

/** A job's audit trail, oldest first. The database writes it, and refuses to change it. */
export async function trailOf(jobId: number): Promise<TrailLine[]> {
  const rows = await EventRow.findAll({ where: { jobId }, order: [["id", "ASC"]] });
  return rows.map(({ id, at, what, about }) => ({
    id,
    at: new Date(at),
    what,
    about: storedColumns.events.about.parse(about ?? null) ?? {},
  }));
}
