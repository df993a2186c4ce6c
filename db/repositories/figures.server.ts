import { type BinSums, reliabilityEdges } from "@core/records/reliability";
import { type Symptom, symptoms } from "@core/records/symptom";
import { QueryTypes, type Sequelize } from "sequelize";
import { z } from "zod";
import { JobRow } from "../models/jobModels.server";

async function ask<T>(schema: z.ZodType<T>, sql: string): Promise<T[]> {
  const { sequelize } = JobRow;
  if (!sequelize) throw new Error("no database is open");
  return z.array(schema).parse(await sequelize.query(sql, { type: QueryTypes.SELECT }));
}

/** How often a kind of fault caused a symptom, in one family of circuits. */
export interface FaultOfSymptom {
  readonly family: string;
  readonly symptom: Symptom;
  readonly kind: string;
  readonly n: number;
}

/** Closed jobs that are not deleted. */
const closed = "closures k WHERE k.jobId NOT IN (SELECT id FROM jobs WHERE deletedAt IS NOT NULL)";

export const faultsBySymptom = (): Promise<FaultOfSymptom[]> =>
  ask(
    z.object({ family: z.string(), symptom: z.enum(symptoms), kind: z.string(), n: z.number() }),
    `SELECT k.family, k.symptom, k.kind, COUNT(*) AS n FROM ${closed} GROUP BY k.family, k.symptom, k.kind ORDER BY n DESC`,
  );

/** Minutes to the verdict by symptom, and the fixed chart's on the same jobs. */
export interface MinutesOfSymptom {
  readonly symptom: Symptom;
  readonly jobs: number;
  readonly minutes: number;
  /** Jobs on which the chart ends at the faulty part, its minutes there, and Airway's on the same jobs. */
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

/** Comebacks, by whether the root cause was found. */
export interface ComebacksOfCause {
  readonly cause: string;
  readonly jobs: number;
  readonly comebacks: number;
}

export async function comebacksByCause(): Promise<ComebacksOfCause[]> {
  const jobs = await ask(
    z.object({ cause: z.string(), jobs: z.number() }),
    `SELECT k.cause, COUNT(*) AS jobs FROM ${closed} GROUP BY k.cause ORDER BY k.cause`,
  );
  // Starts at the comebacks, which are few, and looks up their closures.
  const back = await ask(
    z.object({ cause: z.string(), comebacks: z.number() }),
    `SELECT k.cause, COUNT(*) AS comebacks FROM
       (SELECT DISTINCT b.comebackOf AS first FROM jobs b WHERE b.comebackOf IS NOT NULL AND b.deletedAt IS NULL) b
       CROSS JOIN closures k ON k.jobId = b.first JOIN jobs j ON j.id = k.jobId AND j.deletedAt IS NULL
     GROUP BY k.cause`,
  );
  return jobs.map((own) => ({
    ...own,
    comebacks: back.find(({ cause }) => cause === own.cause)?.comebacks ?? 0,
  }));
}

/** Money billed by month, over the newest two years. */
export interface MoneyOfMonth {
  readonly month: string;
  readonly jobs: number;
  readonly totalMinor: number;
}

export async function moneyByMonth(now: Date): Promise<MoneyOfMonth[]> {
  const first = (back: number): string =>
    new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth() - back, 1)).toISOString().slice(0, 10);
  const months = Array.from({ length: 24 }, (_, back) => ({ from: first(back), to: first(back - 1) }));
  const rows = await ask(
    z.object({ month: z.string(), jobs: z.number(), totalMinor: z.number() }),
    `WITH months (month, low, high) AS (VALUES ${months
      .map(({ from, to }) => `('${from.slice(0, 7)}', '${from}', '${to}')`)
      .join(", ")})
     SELECT month, COUNT(k.jobId) AS jobs, COALESCE(SUM(k.totalMinor), 0) AS totalMinor
     FROM months CROSS JOIN closures k ON k.closedAt >= low AND k.closedAt < high
     WHERE k.jobId NOT IN (SELECT id FROM jobs WHERE deletedAt IS NOT NULL)
     GROUP BY month`,
  );
  return rows.sort((one, other) => (one.month < other.month ? 1 : -1));
}

/** Sums over the verdicts with fitted parts and a known outcome, by bin of their belief. */
export async function verdictSums(): Promise<BinSums[]> {
  const bins = reliabilityEdges
    .slice(0, -1)
    .map((low, index) => {
      // The last bin includes certainty.
      const high = index === reliabilityEdges.length - 2 ? 2 : reliabilityEdges[index + 1];
      return `(${index}, ${low}, ${high})`;
    })
    .join(", ");
  const rows = await ask(
    z.object({
      bin: z.number(),
      trials: z.number(),
      hits: z.number(),
      said: z.number(),
      squares: z.number(),
      saidOfHits: z.number(),
    }),
    `WITH bins (bin, low, high) AS (VALUES ${bins}), outcomes (outcome, hit) AS (VALUES ('held', 1), ('failed', 0), ('came-back', 0))
     SELECT bin, COUNT(*) AS trials, SUM(hit) AS hits, SUM(f.p) AS said, SUM(f.p * f.p) AS squares, SUM(f.p * hit) AS saidOfHits
     FROM bins CROSS JOIN outcomes CROSS JOIN fittings f ON f.outcome = outcomes.outcome AND f.p >= low AND f.p < high
     WHERE f.jobId NOT IN (SELECT id FROM jobs WHERE deletedAt IS NOT NULL)
     GROUP BY bin`,
  );
  return reliabilityEdges
    .slice(1)
    .map(
      (_, index) =>
        rows.find((row) => row.bin === index) ?? { trials: 0, hits: 0, said: 0, squares: 0, saidOfHits: 0 },
    );
}

/** The data of all statistics. */
export interface Figures {
  readonly faults: readonly FaultOfSymptom[];
  readonly minutes: readonly MinutesOfSymptom[];
  readonly causes: readonly ComebacksOfCause[];
  readonly months: readonly MoneyOfMonth[];
  readonly sums: readonly BinSums[];
}

/** The last statistics of a database, and the database's state then. */
const kept = new WeakMap<Sequelize, { readonly standing: string; readonly figures: Promise<Figures> }>();

/** A text that changes with every write by this connection (`total_changes`) or another (`data_version`). */
async function standingNow(now: Date): Promise<string> {
  const [[own], [others]] = await Promise.all([
    ask(z.object({ changes: z.number() }), "SELECT total_changes() AS changes"),
    ask(z.object({ data_version: z.number() }), "PRAGMA data_version"),
  ]);
  return `${own?.changes} ${others?.data_version} ${now.toISOString().slice(0, 7)}`;
}

/** All statistics; computed again only after a write, because the sums cover every closed job. */
export async function shopFigures(now: Date): Promise<Figures> {
  const { sequelize } = JobRow;
  if (!sequelize) throw new Error("no database is open");
  const standing = await standingNow(now);
  const known = kept.get(sequelize);
  if (known?.standing === standing) return known.figures;
  const figures = Promise.all([
    faultsBySymptom(),
    minutesBySymptom(),
    comebacksByCause(),
    moneyByMonth(now),
    verdictSums(),
  ]).then(([faults, minutes, causes, months, sums]) => ({ faults, minutes, causes, months, sums }));
  kept.set(sequelize, { standing, figures });
  figures.catch(() => kept.delete(sequelize));
  return figures;
}
