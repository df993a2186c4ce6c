import { type BinSums, reliabilityEdges } from "@core/records/reliability";
import { type Symptom, symptoms } from "@core/records/symptom";
import { QueryTypes } from "sequelize";
import { z } from "zod";
import { JobRow } from "../models.server";

async function ask<T>(schema: z.ZodType<T>, sql: string): Promise<T[]> {
  const { sequelize } = JobRow;
  if (!sequelize) throw new Error("no database is open");
  return z.array(schema).parse(await sequelize.query(sql, { type: QueryTypes.SELECT }));
}

/** How often a kind of fault was behind a symptom, in one family of circuits. */
export interface FaultOfSymptom {
  readonly family: string;
  readonly symptom: Symptom;
  readonly kind: string;
  readonly n: number;
}

/** Closed jobs that were not deleted. */
const closed = "closures k JOIN jobs j ON j.id = k.jobId AND j.deletedAt IS NULL";

export const faultsBySymptom = (): Promise<FaultOfSymptom[]> =>
  ask(
    z.object({ family: z.string(), symptom: z.enum(symptoms), kind: z.string(), n: z.number() }),
    `SELECT k.family, k.symptom, k.kind, COUNT(*) AS n FROM ${closed} GROUP BY k.family, k.symptom, k.kind ORDER BY n DESC`,
  );

/** Minutes to the verdict by symptom, and what the fixed chart would have taken on the same jobs. */
export interface MinutesOfSymptom {
  readonly symptom: Symptom;
  readonly jobs: number;
  readonly minutes: number;
  /** Jobs on which the chart ends at the part that was at fault, its minutes there, and ours on the same. */
  readonly chartJobs: number;
  readonly chartMinutes: number | null;
  readonly minutesThere: number | null;
}

export const minutesBySymptom = (): Promise<MinutesOfSymptom[]> =>
  ask(
    z.object({
      symptom: z.enum(symptoms),
      jobs: z.number(),
      minutes: z.number(),
      chartJobs: z.number(),
      chartMinutes: z.number().nullable(),
      minutesThere: z.number().nullable(),
    }),
    `SELECT k.symptom, COUNT(*) AS jobs, AVG(k.minutes) AS minutes, COUNT(k.chartMinutes) AS chartJobs,
       AVG(k.chartMinutes) AS chartMinutes, AVG(CASE WHEN k.chartMinutes IS NOT NULL THEN k.minutes END) AS minutesThere
     FROM ${closed} GROUP BY k.symptom ORDER BY jobs DESC`,
  );

/** Comebacks by whether what killed the part was found. */
export interface ComebacksOfCause {
  readonly cause: string;
  readonly jobs: number;
  readonly comebacks: number;
}

export const comebacksByCause = (): Promise<ComebacksOfCause[]> =>
  ask(
    z.object({ cause: z.string(), jobs: z.number(), comebacks: z.number() }),
    `SELECT k.cause, COUNT(*) AS jobs,
       COUNT(b.first) AS comebacks
     FROM ${closed} LEFT JOIN (SELECT DISTINCT comebackOf AS first FROM jobs WHERE comebackOf IS NOT NULL AND deletedAt IS NULL) b
       ON b.first = k.jobId
     GROUP BY k.cause ORDER BY k.cause`,
  );

/** Money billed by month, of the newest two years. */
export interface MoneyOfMonth {
  readonly month: string;
  readonly jobs: number;
  readonly totalMinor: number;
}

export const moneyByMonth = (): Promise<MoneyOfMonth[]> =>
  ask(
    z.object({ month: z.string(), jobs: z.number(), totalMinor: z.number() }),
    `SELECT substr(k.closedAt, 1, 7) AS month, COUNT(*) AS jobs, COALESCE(SUM(k.totalMinor), 0) AS totalMinor
     FROM ${closed} GROUP BY month ORDER BY month DESC LIMIT 24`,
  );

/** Sums of the verdicts parts were fitted on, by bin of their belief: those whose outcome is known. */
export async function verdictSums(): Promise<BinSums[]> {
  const bin = `CASE ${reliabilityEdges
    .slice(1, -1)
    .map((edge, index) => `WHEN f.p < ${edge} THEN ${index}`)
    .join(" ")} ELSE ${reliabilityEdges.length - 2} END`;
  const rows = await ask(
    z.object({
      bin: z.number(),
      trials: z.number(),
      hits: z.number(),
      said: z.number(),
      squares: z.number(),
      saidOfHits: z.number(),
    }),
    `SELECT ${bin} AS bin, COUNT(*) AS trials, SUM(f.outcome = 'held') AS hits, SUM(f.p) AS said, SUM(f.p * f.p) AS squares,
       SUM(CASE WHEN f.outcome = 'held' THEN f.p ELSE 0 END) AS saidOfHits
     FROM fittings f JOIN jobs j ON j.id = f.jobId AND j.deletedAt IS NULL
     WHERE f.outcome IN ('held', 'failed', 'came-back') GROUP BY bin`,
  );
  return reliabilityEdges
    .slice(1)
    .map(
      (_, index) =>
        rows.find((row) => row.bin === index) ?? { trials: 0, hits: 0, said: 0, squares: 0, saidOfHits: 0 },
    );
}
