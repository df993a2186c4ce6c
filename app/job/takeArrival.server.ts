import { partsArrived } from "@db/repositories/jobs.server";
import { intoJob, type Refused } from "./intoJob.server";

/**
 * Marks a job's ordered parts as arrived, or as not arrived after all. A job that no longer waits for parts refuses it,
 * and the entry is kept for a person to decide.
 * @param fields what the form sent to the verdict page, or would have sent
 */
export const takeArrival = (
  jobId: number,
  arrived: boolean,
  fields: Readonly<Record<string, string>>,
  at: Date,
): Promise<Refused | null> =>
  intoJob(
    {
      jobId,
      address: `/jobs/${jobId}/verdict`,
      fields,
      words: arrived ? "the ordered parts arrived" : "the ordered parts have not arrived",
      at,
    },
    () => partsArrived(jobId, arrived ? at : null),
  );
