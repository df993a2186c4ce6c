import type { Strategy } from "@core/diagnose/tests/strategy";
import { QueryTypes } from "sequelize";
import { z } from "zod";
import { database } from "../database.server";
import { JobLineRow } from "../models/jobModels.server";

/** The state of a job that its line depends on: its last event, and its strategy. */
export interface JobState {
  readonly revision: number;
  readonly school: Strategy;
}

/** The board's line for a job, and whether it is up to date. */
export interface JobLine {
  readonly line: string;
  /** Whether testing is over: a verdict is reached. */
  readonly decided: boolean;
  readonly isFresh: boolean;
}

const rowSchema = z.object({
  id: z.number(),
  revision: z.number(),
  madeOf: z.number().nullable(),
  line: z.string().nullable(),
  decided: z.number().nullable(),
  sameSchool: z.number().nullable(),
});

const numbers = (jobs: readonly number[]): string => jobs.map((id) => String(Math.trunc(id))).join(", ");

/** The stored lines of some jobs, by job; null for those never worked out. */
export async function jobLinesOf(jobs: readonly number[]): Promise<Map<number, JobLine | null>> {
  if (jobs.length === 0) return new Map();
  const { sequelize } = await database();
  const rows = await sequelize.query(
    `SELECT j.id, COALESCE((SELECT MAX(e.id) FROM events e WHERE e.jobId = j.id), 0) AS revision,
       l.revision AS madeOf, l.line, l.decided, l.school = j.school AS sameSchool
     FROM jobs j LEFT JOIN jobLines l ON l.jobId = j.id WHERE j.id IN (${numbers(jobs)})`,
    { type: QueryTypes.SELECT },
  );
  return new Map(
    z
      .array(rowSchema)
      .parse(rows)
      .map(({ id, revision, madeOf, line, decided, sameSchool }) => [
        id,
        line === null
          ? null
          : { line, decided: decided === 1, isFresh: madeOf === revision && sameSchool === 1 },
      ]),
  );
}

/** The number of a job's last event. */
export async function revisionOf(jobId: number): Promise<number> {
  const { sequelize } = await database();
  const [row] = await sequelize.query(
    `SELECT COALESCE(MAX(id), 0) AS n FROM events WHERE jobId = ${numbers([jobId])}`,
    {
      type: QueryTypes.SELECT,
    },
  );
  return z.object({ n: z.number() }).parse(row).n;
}

/** Stores the line of a job in a state. */
export async function setJobLine(
  jobId: number,
  { line, decided }: Pick<JobLine, "line" | "decided">,
  { revision, school }: JobState,
): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    JobLineRow.upsert(
      { jobId, revision, school, line, decided: decided ? 1 : 0, madeAt: new Date() },
      { transaction },
    ),
  );
}
