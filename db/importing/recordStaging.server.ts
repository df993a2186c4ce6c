import { rmSync } from "node:fs";
import type { JobRecord } from "@core/formats/recordFile";
import { closureSchema } from "@core/records/closure";
import { z } from "zod";
import { type Cell, PlainSqlite } from "../keeping/plainSqlite.server";

const outcomeSchema = z.object({
  brought: z.number(),
  /** Number already in the shop, by key. */
  known: z.number(),
  /** Circuits they name that are not on the shelf; their jobs are left out. */
  strange: z.array(z.string()).readonly(),
});
/** What importing records did, or would do. */
export type RecordsBroughtIn = Readonly<z.infer<typeof outcomeSchema>>;

/** Rows written to the shop at a time; others write between two batches. */
const batchRows = 250;

const columns = [
  "key",
  "vehicle",
  "model",
  "circuit",
  "came",
  "closed",
  "words",
  "found",
  "fitted",
  "fault",
  "kind",
  "mode",
  "family",
  "cause",
  "symptom",
  "looks",
  "minutes",
  "totalMinor",
  "body",
  "works",
] as const;

const schema = `
  CREATE TABLE records (
    n INTEGER PRIMARY KEY, key TEXT NOT NULL UNIQUE, vehicle TEXT NOT NULL, model TEXT NOT NULL, circuit TEXT NOT NULL,
    came TEXT NOT NULL, closed TEXT NOT NULL, words TEXT NOT NULL, found TEXT NOT NULL, fitted TEXT NOT NULL,
    fault TEXT NOT NULL, kind TEXT NOT NULL, mode TEXT NOT NULL, family TEXT NOT NULL, cause TEXT NOT NULL,
    symptom TEXT NOT NULL, looks INTEGER NOT NULL, minutes FLOAT NOT NULL, totalMinor INTEGER, body TEXT NOT NULL,
    works TEXT NOT NULL, known INTEGER NOT NULL DEFAULT 0);
  CREATE TABLE circuits (circuit TEXT PRIMARY KEY, rowId TEXT);
  CREATE TABLE rowsRead (n INTEGER NOT NULL);
  CREATE TABLE writing (outcome TEXT NOT NULL);`;

/** A moment in the format of the shop's tables. */
const stored = (moment: Date | string): string =>
  new Date(moment).toISOString().replace("T", " ").replace("Z", " +00:00");

function cellsOf(record: JobRecord): Cell[] {
  const { parts, found, fault, cause } = record;
  const replaced = parts.split("+");
  const body = closureSchema.parse({ found, fault, parts: replaced, cause, learn: false });
  const values: Readonly<Record<(typeof columns)[number], Cell>> = {
    ...record,
    came: stored(record.came),
    closed: stored(record.closed),
    fitted: JSON.stringify(replaced),
    body: JSON.stringify(body),
    works: JSON.stringify(record.works ?? []),
  };
  return columns.map((column) => values[column]);
}

/**
 * Records from elsewhere in a database file of their own: read and checked there, then written to the shop batch by
 * batch. Once writing has begun it continues to the end, even across a restart of the server; records already in the
 * shop stay unchanged.
 */
export class RecordStaging {
  private constructor(private readonly own: PlainSqlite) {}

  /** A new staging file in place of an earlier one. */
  static async create(file: string): Promise<RecordStaging> {
    rmSync(file, { force: true });
    const own = await PlainSqlite.open(file, { create: true });
    await own.run(`PRAGMA synchronous = OFF; ${schema}`);
    return new RecordStaging(own);
  }

  private static async open(file: string, shop: string): Promise<RecordStaging> {
    const own = await PlainSqlite.open(file);
    await own.run(
      `ATTACH '${shop.replaceAll("'", "''")}' AS shop;
       PRAGMA busy_timeout = 5000; PRAGMA foreign_keys = ON; PRAGMA shop.synchronous = FULL`,
    );
    return new RecordStaging(own);
  }

  /** Opens a staging file for some work, and closes it afterwards, whatever happens. */
  static async use<T>(file: string, shop: string, work: (own: RecordStaging) => Promise<T>): Promise<T> {
    const own = await RecordStaging.open(file, shop);
    try {
      return await work(own);
    } finally {
      await own.close();
    }
  }

  /** Adds some records; of two with one key the first counts. */
  async add(records: readonly JobRecord[]): Promise<void> {
    const marks = columns.map(() => "?").join(", ");
    await this.own.run("BEGIN");
    await this.own.each(
      `INSERT OR IGNORE INTO records (${columns.join(", ")}) VALUES (${marks})`,
      records.map(cellsOf),
    );
    await this.own.run(`INSERT INTO rowsRead VALUES (${records.length}); COMMIT`);
  }

  /** Compares them with the present shop, without writing; stores the circuit of each. */
  async weigh(): Promise<RecordsBroughtIn> {
    await this.own.run(`
      DELETE FROM circuits;
      INSERT INTO circuits SELECT DISTINCT circuit,
        (SELECT id FROM shop.circuits c WHERE c.shelfId = r.circuit AND c.onShelf = 1 ORDER BY c.version DESC LIMIT 1)
        FROM records r`);
    const [sum] = await this.own.all(`
      SELECT COUNT(*) AS fresh FROM records r JOIN circuits c ON c.circuit = r.circuit AND c.rowId IS NOT NULL
      WHERE NOT EXISTS (SELECT 1 FROM shop.jobs WHERE formToken = r.key)`);
    const [left] = await this.own.all(
      "SELECT COUNT(*) AS n FROM records r JOIN circuits c ON c.circuit = r.circuit AND c.rowId IS NULL",
    );
    const [read] = await this.own.all("SELECT SUM(n) AS n FROM rowsRead");
    const strange = await this.own.all("SELECT circuit FROM circuits WHERE rowId IS NULL ORDER BY circuit");
    const brought = Number(sum?.fresh);
    return {
      brought,
      known: Number(read?.n ?? 0) - brought - Number(left?.n),
      strange: strange.map(({ circuit }) => String(circuit)),
    };
  }

  /** Records that writing to the shop begins; from now on it continues to the end. */
  async beginWriting(outcome: RecordsBroughtIn): Promise<void> {
    await this.own.run("PRAGMA synchronous = FULL");
    await this.own.each("INSERT INTO writing (outcome) VALUES (?)", [[JSON.stringify(outcome)]]);
  }

  /** The import in progress; null if writing has not begun. */
  async writing(): Promise<RecordsBroughtIn | null> {
    const [row] = await this.own.all("SELECT outcome FROM writing");
    return row ? outcomeSchema.parse(JSON.parse(String(row.outcome))) : null;
  }

  /**
   * Writes one batch to the shop in one transaction.
   * @param after position of the last record written; 0 at first
   * @returns the new position, with the share done; null when none are left
   */
  async writeBatch(after: number, now: Date): Promise<{ last: number; share: number } | null> {
    const [place] = await this.own.all(
      "SELECT MAX(n) AS last, (SELECT MAX(n) FROM records) AS most FROM (SELECT n FROM records WHERE n > ? ORDER BY n LIMIT ?)",
      [after, batchRows],
    );
    if (place?.last === null || place?.last === undefined) return null;
    const last = Number(place.last);
    const range = `n > ${after} AND n <= ${last}`;
    await this.own.run("BEGIN IMMEDIATE");
    try {
      await this.own.run(`
        UPDATE records SET known = EXISTS (SELECT 1 FROM shop.jobs WHERE formToken = key) WHERE ${range};
        CREATE TEMP TABLE fresh AS SELECT r.*, c.rowId FROM records r JOIN circuits c ON c.circuit = r.circuit
          WHERE ${range} AND known = 0 AND c.rowId IS NOT NULL;
        INSERT INTO shop.vehicles (label, model, circuitId, createdAt)
          SELECT vehicle, model, rowId, '${stored(now)}' FROM fresh f
          WHERE NOT EXISTS (SELECT 1 FROM shop.vehicles v WHERE v.label = f.vehicle AND v.model = f.model)
          GROUP BY vehicle, model;
        INSERT INTO shop.jobs (vehicleId, circuitId, formToken, words, stage, fitted, found, fittedAt, closedAt, createdAt)
          SELECT (SELECT MIN(id) FROM shop.vehicles v WHERE v.label = f.vehicle AND v.model = f.model),
            rowId, key, words, 'closed', fitted, found, closed, closed, came FROM fresh f ORDER BY n;
        INSERT INTO shop.closures (jobId, fault, kind, mode, family, cause, symptom, looks, minutes, repairKind, totalMinor,
            closedAt, counted, body)
          SELECT j.id, fault, kind, mode, family, cause, symptom, looks, minutes, 'unknown', totalMinor, closed, 0, body
          FROM fresh f JOIN shop.jobs j ON j.formToken = f.key;
        INSERT INTO shop.works (id, jobId, round, part, what, kind, done, state, body, madeAt)
          SELECT 'record-' || j.id || '-' || line.key, j.id, line.value ->> 'round', line.value ->> 'part',
            line.value ->> 'what', 'unknown', line.value ->> 'done', line.value ->> 'state',
            json_remove(line.value, '$.round', '$.part', '$.what', '$.done', '$.state'), closed
          FROM fresh f JOIN shop.jobs j ON j.formToken = f.key, json_each(f.works) line;
        DROP TABLE fresh`);
      await this.own.run("COMMIT");
    } catch (thrown) {
      await this.own.run("ROLLBACK");
      throw thrown;
    }
    return { last, share: last / Number(place.most) };
  }

  close(): Promise<void> {
    return this.own.close();
  }
}
