import type { RecordingRecord } from "@core/recording/storedRecording";
import type { JobRefusal } from "@core/records/jobStage";
import { Op } from "sequelize";
import { RecordingRow } from "../models/entryModels.server";
import { storedColumns } from "../storedColumns";
import { always, writeToJob } from "./jobGate.server";

/** A recording as stored with its job. */
export interface StoredRecording {
  readonly id: string;
  readonly jobId: number;
  readonly record: RecordingRecord;
  /** The motor part it is the healthy recording of, if it was marked so. */
  readonly healthyOf: string | null;
  readonly takenAt: Date;
  readonly struckAt: Date | null;
}

const about = ["id", "jobId", "record", "healthyOf", "takenAt", "struckAt"];

const storedOf = (row: RecordingRow): StoredRecording => ({
  id: row.id,
  jobId: row.jobId,
  record: storedColumns.traces.record.parse(row.record),
  healthyOf: row.healthyOf ?? null,
  takenAt: row.takenAt,
  struckAt: row.struckAt ?? null,
});

/** A job's recordings, oldest first, including deleted ones; their samples are read one by one. */
export async function recordingsOf(jobId: number): Promise<StoredRecording[]> {
  const rows = await RecordingRow.findAll({
    where: { jobId },
    attributes: about,
    order: [["takenAt", "ASC"]],
  });
  return rows.map(storedOf);
}

/** The healthy recordings of a motor part, newest first, from any job. */
export async function healthyRecordingsOf(motorPart: string): Promise<StoredRecording[]> {
  const rows = await RecordingRow.findAll({
    where: { healthyOf: motorPart, struckAt: { [Op.is]: null } },
    attributes: about,
    order: [["takenAt", "DESC"]],
    limit: 10,
  });
  return rows.map(storedOf);
}

export interface NewRecording {
  /** Made where it was read; the same recording sent twice is stored once. */
  readonly id: string;
  readonly jobId: number;
  readonly record: RecordingRecord;
  /** Little-endian 32-bit floats, amps; empty for sound. */
  readonly samples: Buffer;
  readonly takenAt: Date;
}

/** Stores a recording, even of a closed or deleted job; resolves once it is on disk. */
export const addRecording = (trace: NewRecording): Promise<JobRefusal | null> =>
  writeToJob(
    trace.jobId,
    always,
    (transaction) => RecordingRow.create({ ...trace, record: JSON.stringify(trace.record) }, { transaction }),
    (transaction) => RecordingRow.findByPk(trace.id, { attributes: ["jobId"], transaction }),
  );

/** Stored samples of a recording of any job; null if there are none. */
export async function samplesOf(id: string): Promise<Buffer | null> {
  const row = await RecordingRow.findByPk(id, { attributes: ["samples"] });
  return row?.samples ?? null;
}

/** Deletes a recording, or restores it. */
export const deleteRecording = (
  jobId: number,
  id: string,
  struckAt: Date | null,
): Promise<JobRefusal | null> =>
  writeToJob(jobId, always, (transaction) =>
    RecordingRow.update({ struckAt }, { where: { id, jobId }, transaction }),
  );

/** Marks a recording as the healthy one of a motor part for comparison, or unmarks it with null. */
export const setHealthy = (jobId: number, id: string, motorPart: string | null): Promise<JobRefusal | null> =>
  writeToJob(jobId, always, (transaction) =>
    RecordingRow.update({ healthyOf: motorPart }, { where: { id, jobId }, transaction }),
  );
