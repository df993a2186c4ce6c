import { QueryTypes } from "sequelize";
import { z } from "zod";
import { database } from "../database.server";
import { ClosureRow } from "../models/memoryModels.server";

const dueSchema = z.object({
  jobId: z.number(),
  vehicle: z.string(),
  on: z.string(),
  why: z.string().nullable(),
});
/** A vehicle to be looked at again after a temporary repair, on a day such as 2026-12-24. */
export type FollowUpDue = Readonly<z.infer<typeof dueSchema>>;

const on = "json_extract(k.body, '$.followUpOn')";

/** Follow-ups that are due on or before a day and not yet made, the earliest first. */
export async function followUpsUntil(day: string): Promise<FollowUpDue[]> {
  const { sequelize } = await database();
  const rows = await sequelize.query(
    `SELECT k.jobId, v.model || ', ' || v.label AS vehicle, ${on} AS "on",
       COALESCE(json_extract(k.body, '$.stopgap'), json_extract(k.body, '$.advice')) AS why
     FROM closures k JOIN jobs j ON j.id = k.jobId JOIN vehicles v ON v.id = j.vehicleId
     WHERE ${on} IS NOT NULL AND ${on} <= :day AND k.followedUpAt IS NULL AND j.deletedAt IS NULL
     ORDER BY ${on}, k.jobId`,
    { type: QueryTypes.SELECT, replacements: { day } },
  );
  return z.array(dueSchema).parse(rows);
}

/** Marks a job's follow-up as made, or as still to be made (null). */
export async function setFollowedUp(jobId: number, followedUpAt: Date | null): Promise<void> {
  const store = await database();
  await store.write((transaction) => ClosureRow.update({ followedUpAt }, { where: { jobId }, transaction }));
}
