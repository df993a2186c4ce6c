import type { JobRecord } from "@core/formats/recordFile";
import { closureSchema } from "@core/records/closure";
import { type JobStage, jobStages } from "@core/records/jobStage";
import { symptoms } from "@core/records/symptom";
import { workInFileSchema } from "@core/workList/workLine";
import { QueryTypes } from "sequelize";
import { z } from "zod";
import { JobRow } from "../models/jobModels.server";
import type { RecordOrder, RecordQuery } from "../recordQuery";

/** One job in the list of records. */
export interface RecordLine {
  readonly id: number;
  readonly vehicleId: number;
  readonly vehicle: string;
  readonly circuit: string;
  readonly words: string;
  readonly stage: JobStage;
  readonly found: string | null;
  readonly fault: string | null;
  readonly kind: string | null;
  readonly mode: string | null;
  readonly cause: string | null;
  readonly minutes: number | null;
  readonly totalMinor: number | null;
  readonly came: Date;
  readonly closed: Date | null;
  readonly comebackOf: number | null;
  readonly cameBack: boolean;
}

const lineSchema = z.object({
  id: z.number(),
  vehicleId: z.number(),
  vehicle: z.string(),
  circuit: z.string(),
  words: z.string(),
  stage: z.enum(jobStages),
  found: z.string().nullable(),
  fault: z.string().nullable(),
  kind: z.string().nullable(),
  mode: z.string().nullable(),
  cause: z.string().nullable(),
  minutes: z.number().nullable(),
  totalMinor: z.number().nullable(),
  came: z.coerce.date(),
  closed: z.coerce.date().nullable(),
  comebackOf: z.number().nullable(),
  cameBack: z.number().transform((own) => own === 1),
});

/** The search words, each of which must begin a word of the job. Quotes have no special meaning. */
export const matchText = (words: string): string =>
  words
    .split(/\s+/)
    .flatMap((word) => (/[\p{L}\p{N}]/u.test(word) ? [`"${word.replaceAll('"', '""')}"*`] : []))
    .join(" ");

const columns: Readonly<Record<RecordOrder, string>> = {
  closed: "j.closedAt",
  came: "j.createdAt",
  vehicle: "v.label",
  circuit: "c.title",
  fault: "k.kind || ' ' || k.mode",
  minutes: "k.minutes",
  money: "k.totalMinor",
};

const came = "EXISTS (SELECT 1 FROM jobs b WHERE b.comebackOf = j.id AND b.deletedAt IS NULL)";

function conditions(query: RecordQuery): string[] {
  const match = matchText(query.words);
  return [
    query.outcome === "deleted" ? "j.deletedAt IS NOT NULL" : "j.deletedAt IS NULL",
    ...(match ? ["j.id IN (SELECT rowid FROM jobSearch WHERE jobSearch MATCH :match)"] : []),
    ...(query.vehicle === null ? [] : ["j.vehicleId = :vehicle"]),
    ...(query.circuit ? ["c.shelfId = :circuit"] : []),
    ...(query.fault
      ? [
          `(k.kind || ' ' || k.mode = :fault OR EXISTS
             (SELECT 1 FROM closureFaults f WHERE f.jobId = j.id AND f.kind || ' ' || f.mode = :fault))`,
        ]
      : []),
    // Jobs from before there was a work list, and every part worked on since.
    ...(query.part
      ? [
          `(k.repairKind = :part OR EXISTS
             (SELECT 1 FROM works w WHERE w.jobId = j.id AND w.kind = :part AND w.state = 'done' AND w.struckAt IS NULL))`,
        ]
      : []),
    ...(query.outcome === "open" ? ["j.stage <> 'closed'"] : []),
    ...(query.outcome === "held" ? ["j.stage = 'closed'", `NOT ${came}`] : []),
    ...(query.outcome === "came-back" ? [came] : []),
  ];
}

const tables = `jobs j JOIN vehicles v ON v.id = j.vehicleId JOIN circuits c ON c.id = j.circuitId
  LEFT JOIN closures k ON k.jobId = j.id`;

function connection() {
  const { sequelize } = JobRow;
  if (!sequelize) throw new Error("no database is open");
  return sequelize;
}

const replacements = (query: RecordQuery) => ({
  match: matchText(query.words),
  vehicle: query.vehicle,
  circuit: query.circuit,
  fault: query.fault,
  part: query.part,
  count: query.count,
  from: query.from,
});

/** Tables that an order or a condition needs in addition to the jobs. */
function tablesFor(query: RecordQuery, order: boolean): string {
  const asked = [...conditions(query), ...(order ? [columns[query.order]] : [])].join(" ");
  return [
    "jobs j",
    ...(/\bv\./.test(asked) ? ["JOIN vehicles v ON v.id = j.vehicleId"] : []),
    ...(/\bc\./.test(asked) ? ["JOIN circuits c ON c.id = j.circuitId"] : []),
    ...(/\bk\./.test(asked) ? ["LEFT JOIN closures k ON k.jobId = j.id"] : []),
  ].join(" ");
}

/** One page of the jobs that match a query: their ids first, from as few columns as possible, then their contents. */
export async function findRecords(query: RecordQuery): Promise<RecordLine[]> {
  const way = query.down ? "DESC" : "ASC";
  const ordered = await connection().query(
    `SELECT j.id FROM ${tablesFor(query, true)} WHERE ${conditions(query).join(" AND ")}
     ORDER BY ${columns[query.order]} ${way}, j.id ${way} LIMIT :count OFFSET :from`,
    { type: QueryTypes.SELECT, replacements: replacements(query) },
  );
  const ids = z
    .array(z.object({ id: z.number() }))
    .parse(ordered)
    .map(({ id }) => id);
  if (ids.length === 0) return [];
  const rows = await connection().query(
    `SELECT j.id, j.vehicleId, v.model || ', ' || v.label AS vehicle, c.title AS circuit, j.words, j.stage, j.found,
       k.fault, k.kind, k.mode, k.cause, k.minutes, k.totalMinor, j.createdAt AS came, j.closedAt AS closed, j.comebackOf,
       ${came} AS cameBack
     FROM ${tables} WHERE j.id IN (:ids)`,
    { type: QueryTypes.SELECT, replacements: { ids } },
  );
  const place = new Map(ids.map((id, index) => [id, index]));
  return z
    .array(lineSchema)
    .parse(rows)
    .sort((a, b) => (place.get(a.id) ?? 0) - (place.get(b.id) ?? 0));
}

/** Number of jobs that match a query. */
export async function countRecords(query: RecordQuery): Promise<number> {
  const [row] = await connection().query(
    `SELECT COUNT(*) AS n FROM ${tablesFor(query, false)} WHERE ${conditions(query).join(" AND ")}`,
    { type: QueryTypes.SELECT, replacements: replacements(query) },
  );
  return z.object({ n: z.number() }).parse(row).n;
}

/** The values of an indexed column, found by one step in the index a value instead of a scan of the table. */
const valuesOf = (table: string, column: string): string =>
  `SELECT name FROM (WITH RECURSIVE met(name) AS (SELECT MIN(${column}) FROM ${table} UNION ALL
     SELECT (SELECT MIN(${column}) FROM ${table} WHERE ${column} > met.name) FROM met WHERE met.name IS NOT NULL)
   SELECT name FROM met) WHERE name IS NOT NULL`;

/** Faults and kinds of repair that occur, for the lists to choose from. */
export async function recordChoices(): Promise<{ faults: string[]; parts: string[] }> {
  const ask = async (sql: string): Promise<string[]> =>
    z
      .array(z.object({ name: z.string() }))
      .parse(await connection().query(sql, { type: QueryTypes.SELECT }))
      .map(({ name }) => name);
  return {
    faults: await ask(
      "SELECT DISTINCT kind || ' ' || mode AS name FROM faultCounts WHERE n > 0 ORDER BY name",
    ),
    parts: await ask(
      `${valuesOf("closures", "repairKind")} UNION ${valuesOf("works", "kind")} AND name <> 'unknown' ORDER BY name`,
    ),
  };
}

const exported = z.object({
  key: z.string(),
  vehicle: z.string(),
  model: z.string(),
  circuit: z.string(),
  came: z.coerce.date().transform((own) => own.toISOString()),
  closed: z.coerce.date().transform((own) => own.toISOString()),
  words: z.string(),
  body: z.string(),
  kind: z.string(),
  mode: z.string(),
  family: z.string(),
  symptom: z.enum(symptoms),
  looks: z.number(),
  minutes: z.number(),
  totalMinor: z.number().nullable(),
  cameBack: z.number(),
  works: z.string(),
});

/** A job's lines of work as one JSON text, in the shape of a file. */
const worksInFile = `(SELECT json_group_array(json_patch(w.body,
    json_object('round', w.round, 'part', w.part, 'what', w.what, 'done', w.done, 'state', w.state)))
  FROM (SELECT * FROM works WHERE jobId = j.id AND struckAt IS NULL ORDER BY round, madeAt, id) w)`;

/** Every closed job in the exchange format, oldest first. */
export async function exportRecords(): Promise<JobRecord[]> {
  const rows = await connection().query(
    `SELECT j.formToken AS key, v.label AS vehicle, v.model, c.shelfId AS circuit, j.createdAt AS came, k.closedAt AS closed,
       j.words, k.body, k.kind, k.mode, k.family, k.symptom, k.looks, k.minutes, k.totalMinor, ${came} AS cameBack,
       ${worksInFile} AS works
     FROM closures k JOIN jobs j ON j.id = k.jobId JOIN vehicles v ON v.id = j.vehicleId JOIN circuits c ON c.id = j.circuitId
     WHERE j.deletedAt IS NULL ORDER BY k.closedAt, j.id`,
    { type: QueryTypes.SELECT },
  );
  return z
    .array(exported)
    .parse(rows)
    .map(({ body, cameBack, works, ...row }) => {
      const { found, fault, cause, parts } = closureSchema.parse(JSON.parse(body));
      const lines = z.array(workInFileSchema).parse(JSON.parse(works));
      return {
        ...row,
        found,
        fault,
        cause,
        parts: parts.join("+"),
        cameBack: cameBack === 1,
        ...(lines.length > 0 ? { works: lines } : {}),
      };
    });
}
