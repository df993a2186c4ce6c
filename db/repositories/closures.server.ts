import type { FaultCount } from "@core/diagnose/belief/learnedPrior";
import type { CauseKind, Closure } from "@core/records/closure";
import type { JobRefusal } from "@core/records/jobStage";
import type { MeasuredRepairs } from "@core/records/learntRepairs";
import type { Symptom } from "@core/records/symptom";
import { literal, Op, type Transaction } from "sequelize";
import { database } from "../database.server";
import { JobRow } from "../models/jobModels.server";
import { ClosureRow, FaultCountRow, RepairSumRow } from "../models/memoryModels.server";
import { ClosureFaultRow } from "../models/workModels.server";
import { storedColumns } from "../storedColumns";
import { settleFitting } from "./fittings.server";
import { writeToJob } from "./jobGate.server";

/** How a job was closed, with what the records count of it. */
export interface StoredClosure {
  readonly closure: Closure;
  /** Kind and mode of the fault, and the family of its circuit, in the shop's counts. */
  readonly kind: string;
  readonly mode: string;
  readonly family: string;
  readonly symptom: Symptom;
  readonly looks: number;
  /** Minutes to the verdict, and the minutes the fixed chart would have taken to the same part. */
  readonly minutes: number;
  readonly chartMinutes: number | null;
  /** The part replaced, by the kind that sets its price, and the minutes of removal and refitting. */
  readonly repairKind: string;
  readonly repairMinutes: number | null;
  readonly totalMinor: number | null;
  readonly closedAt: Date;
  readonly counted: boolean;
}

/** A fault that was proved on a job besides its main one. */
export interface FurtherFault {
  readonly part: string;
  readonly fault: string;
  readonly kind: string;
  readonly mode: string;
  readonly counted: boolean;
}

/** A closure as it is to be stored. */
export interface NewClosure extends Omit<StoredClosure, "counted"> {
  readonly furtherFaults?: readonly FurtherFault[];
}

/** A fault outside the circuit's list teaches nothing about the listed ones. */
const teaches = ({ learn, fault }: Closure): boolean => learn && fault !== "unknown";

/** Whether a closure's own statement lets the shop learn from it. */
export const countedOf = (body: string): 0 | 1 => (teaches(storedColumns.closures.body.parse(body)) ? 1 : 0);

const storedOf = (row: ClosureRow): StoredClosure => ({
  closure: storedColumns.closures.body.parse(row.body),
  kind: row.kind,
  mode: row.mode,
  family: row.family,
  symptom: storedColumns.closures.symptom.parse(row.symptom),
  looks: row.looks,
  minutes: row.minutes,
  chartMinutes: row.chartMinutes,
  repairKind: row.repairKind,
  repairMinutes: row.repairMinutes,
  totalMinor: row.totalMinor,
  closedAt: row.closedAt,
  counted: row.counted === 1,
});

export async function closureOf(jobId: number): Promise<StoredClosure | null> {
  const row = await ClosureRow.findByPk(jobId);
  return row ? storedOf(row) : null;
}

/** Closes a checked job: the repair held, and the fault is counted if the shop may learn from it. */
export const closeJob = (jobId: number, own: NewClosure): Promise<JobRefusal | null> =>
  writeToJob(jobId, ["proof-due"], async (transaction) => {
    await settleFitting(jobId, "held", own.closedAt, transaction);
    await insertClosure(jobId, own, transaction);
    await JobRow.update(
      { stage: "closed", found: own.closure.found, closedAt: own.closedAt },
      { where: { id: jobId }, transaction },
    );
  });

/** Stores how a job was closed, replacing an earlier closing. */
export async function insertClosure(
  jobId: number,
  { closure, furtherFaults = [], ...own }: NewClosure,
  transaction: Transaction,
): Promise<void> {
  await ClosureRow.destroy({ where: { jobId }, transaction });
  await ClosureRow.create(
    {
      jobId,
      ...own,
      fault: closure.fault,
      cause: closure.cause satisfies CauseKind,
      counted: teaches(closure) ? 1 : 0,
      body: JSON.stringify(closure),
    },
    { transaction },
  );
  for (const { counted, ...fault } of furtherFaults)
    await ClosureFaultRow.create(
      { id: `${jobId}-${fault.fault}`, jobId, ...fault, family: own.family, counted: counted ? 1 : 0 },
      { transaction },
    );
}

/** Includes a closed job in the shop's statistics, or excludes it. */
export async function setCounted(jobId: number, counted: boolean): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    const row = await ClosureRow.findByPk(jobId, { transaction });
    const job = await JobRow.findByPk(jobId, { attributes: ["deletedAt"], transaction });
    if (!row || !job) return;
    const closure = { ...storedColumns.closures.body.parse(row.body), learn: counted };
    // A deleted job counts for nothing until it is restored.
    const teaching = teaches(closure) && !job.deletedAt;
    await row.update({ counted: teaching ? 1 : 0, body: JSON.stringify(closure) }, { transaction });
  });
}

/** The shop's confirmed faults: counts of one family, and of all others. */
export interface FamilyCounts {
  readonly counts: readonly FaultCount[];
  readonly ofFamily: readonly FaultCount[];
}

/** The shop's counts, separated by one family. */
export async function faultCounts(family: string): Promise<FamilyCounts> {
  const rows = await FaultCountRow.findAll({ order: ["family", "kind", "mode"] });
  const others = new Map<string, FaultCount>();
  const ofFamily: FaultCount[] = [];
  for (const { family: own, kind, mode, n } of rows) {
    if (n <= 0) continue;
    if (own === family) ofFamily.push({ kind, mode, n });
    else {
      const key = `${kind} ${mode}`;
      others.set(key, { kind, mode, n: n + (others.get(key)?.n ?? 0) });
    }
  }
  return { counts: [...others.values()], ofFamily };
}

/** Minutes of removal and refitting by the part replaced, of jobs the shop learns from. */
export async function measuredRepairs(): Promise<MeasuredRepairs[]> {
  const rows = await RepairSumRow.findAll({ order: [["kind", "ASC"]] });
  return rows.flatMap(({ kind, jobs, minutes }) => (jobs > 0 ? [{ kind, jobs, minutes }] : []));
}

/** A closed job that is included in the shop's statistics, or excluded. */
export interface Lesson {
  readonly jobId: number;
  readonly kind: string;
  readonly mode: string;
  readonly closedAt: Date;
  readonly counted: boolean;
}

/** The newest closed jobs that are not deleted, counted or not. */
export async function lessons(limit: number): Promise<Lesson[]> {
  const rows = await ClosureRow.findAll({
    where: { jobId: { [Op.notIn]: literal("(SELECT id FROM jobs WHERE deletedAt IS NOT NULL)") } },
    attributes: ["jobId", "kind", "mode", "closedAt", "counted"],
    order: [["closedAt", "DESC"]],
    limit,
  });
  return rows.map(({ jobId, kind, mode, closedAt, counted }) => ({
    jobId,
    kind,
    mode,
    closedAt,
    counted: counted === 1,
  }));
}
