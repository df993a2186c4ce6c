import type { JobRefusal } from "@core/records/jobStage";
import { jobStages } from "@core/records/jobStage";
import { EstimateRow } from "../models/moneyModels.server";
import { type EstimateBody, storedColumns } from "../storedColumns";
import { writeToJob } from "./jobGate.server";

const columns = storedColumns.estimates;

/** A version of a job's estimate, or its bill. */
export interface StoredEstimate {
  readonly id: string;
  readonly number: number;
  readonly kind: "estimate" | "bill";
  readonly body: EstimateBody;
  readonly madeAt: Date;
  readonly approvedAt: Date | null;
  readonly approvedBy: string | null;
}

/** A job's versions, oldest first. */
export async function estimatesOf(jobId: number): Promise<StoredEstimate[]> {
  const rows = await EstimateRow.findAll({ where: { jobId }, order: [["number", "ASC"]] });
  return rows.map((row) => ({
    id: row.id,
    number: row.number,
    kind: columns.kind.parse(row.kind),
    body: columns.body.parse(row.body),
    madeAt: row.madeAt,
    approvedAt: row.approvedAt ?? null,
    approvedBy: row.approvedBy ?? null,
  }));
}

/** Stores the next version, also for a closed job; the same one sent twice is stored once. Versions never change. */
export const addEstimate = (
  jobId: number,
  { id, kind, body }: Pick<StoredEstimate, "id" | "kind" | "body">,
  madeAt: Date,
): Promise<JobRefusal | null> =>
  writeToJob(
    jobId,
    jobStages,
    async (transaction) => {
      const last = await EstimateRow.max<number | null, EstimateRow>("number", {
        where: { jobId },
        transaction,
      });
      await EstimateRow.create(
        { id, jobId, number: (last ?? 0) + 1, kind, body: JSON.stringify(body), madeAt },
        { transaction },
      );
    },
    (transaction) => EstimateRow.findByPk(id, { attributes: ["jobId"], transaction }),
  );

/** Records who approved a version, and when; the first approval counts. */
export const approveEstimate = (
  jobId: number,
  id: string,
  by: string,
  at: Date,
): Promise<JobRefusal | null> =>
  writeToJob(jobId, jobStages, (transaction) =>
    EstimateRow.update(
      { approvedAt: at, approvedBy: by },
      { where: { id, jobId, approvedAt: null }, transaction },
    ),
  );
