import { QueryTypes } from "sequelize";
import { database } from "../database.server";
import { storedColumns } from "../storedColumns";

/** One line of a job's audit trail: what was done, when, by whom, and the database's own words on it. */
export interface TrailLine {
  readonly id: number;
  readonly at: Date;
  /** Who did it; null if the server did, or while the shop did not know its people. */
  readonly who: string | null;
  readonly what: string;
  readonly about: Readonly<Record<string, unknown>>;
}

interface Line {
  readonly id: number;
  readonly at: string;
  readonly what: string;
  readonly about: string | null;
  readonly who: string | null;
}

/** A job's audit trail, oldest first. The database writes it, and refuses to change it. */
export async function trailOf(jobId: number): Promise<TrailLine[]> {
  const { sequelize } = await database();
  const rows = await sequelize.query<Line>(
    `SELECT e.id, e.at, e.what, e.about, p.who FROM events e LEFT JOIN eventPeople p ON p.eventId = e.id
     WHERE e.jobId = :jobId ORDER BY e.id`,
    { type: QueryTypes.SELECT, replacements: { jobId } },
  );
  return rows.map(({ id, at, what, about, who }) => ({
    id,
    at: new Date(at),
    who,
    what,
    about: storedColumns.events.about.parse(about ?? null) ?? {},
  }));
}
