import { EventRow } from "../models/memoryModels.server";

/**
 * The number of the last line of a job's audit trail, 0 if there is none. It grows with every reading, note, tick and
 * line of work, so a page can tell whether it is up to date.
 */
export async function lastEventOf(jobId: number): Promise<number> {
  return (await EventRow.max<number | null, EventRow>("id", { where: { jobId } })) ?? 0;
}
