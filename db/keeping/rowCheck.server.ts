import type { z } from "zod";
import { storedColumns } from "../storedColumns";
import type { Cell, PlainSqlite } from "./plainSqlite.server";

/** A column of a table, with its declared type. */
export interface Column {
  readonly name: string;
  readonly type: string;
  readonly required: boolean;
}

const rowsAtATime = 500;
/** Internal tables of SQLite and of the full-text search. */
const internal = /^(sqlite_|jobSearch)/;

/**
 * Reads every row of a database as the repositories would: numbers, words and moments by type, and all stored JSON by
 * its schema.
 * @param most largest number of faults to name
 * @returns the first faults, by table, row and column
 */
export async function rowFaults(own: PlainSqlite, most: number): Promise<string[]> {
  const tables = await own.all(
    "SELECT name, sql FROM sqlite_master WHERE type = 'table' AND sql NOT LIKE 'CREATE VIRTUAL%' ORDER BY name",
  );
  const faults: string[] = [];
  for (const { name, sql } of tables) {
    const table = String(name);
    if (internal.test(table)) continue;
    const columns = await columnsOf(own, table);
    for await (const { id, row } of rowsOf(own, table, /WITHOUT ROWID/i.test(String(sql))))
      for (const column of columns) {
        const fault = cellFault(table, column, row[column.name] ?? null);
        if (fault) faults.push(`${table}, row ${id}, ${column.name}: ${fault}`);
        if (faults.length >= most) return faults;
      }
  }
  return faults;
}

/** A table's columns, in their order. */
export async function columnsOf(own: PlainSqlite, table: string): Promise<Column[]> {
  const rows = await own.all(`SELECT name, type, "notnull" AS required FROM pragma_table_info(?)`, [table]);
  return rows.map(({ name, type, required }) => ({
    name: String(name),
    type: String(type).toUpperCase(),
    required: required === 1,
  }));
}

async function* rowsOf(own: PlainSqlite, table: string, withoutRowid: boolean) {
  if (withoutRowid) {
    for (const [place, row] of (await own.all(`SELECT * FROM "${table}"`)).entries())
      yield { id: place + 1, row };
    return;
  }
  for (let last = -1; ; ) {
    const rows = await own.all(
      `SELECT rowid AS "rowid of it", * FROM "${table}" WHERE rowid > ? ORDER BY rowid LIMIT ${rowsAtATime}`,
      [last],
    );
    for (const row of rows) yield { id: Number(row["rowid of it"]), row };
    if (rows.length < rowsAtATime) return;
    last = Number(rows.at(-1)?.["rowid of it"]);
  }
}

/** What is wrong with a cell: of another type than its column, or JSON that does not fit its schema; null if nothing is. */
export function cellFault(table: string, { name, type, required }: Column, cell: Cell): string | null {
  const schema = schemaOfColumn(table, name);
  if (schema) {
    const parsed = schema.safeParse(cell);
    return parsed.success ? null : (parsed.error.issues[0]?.message ?? "cannot be read");
  }
  if (cell === null) return required ? "is empty" : null;
  if (type.startsWith("DATETIME"))
    return typeof cell === "string" && !Number.isNaN(Date.parse(cell)) ? null : "is not a date and time";
  if (type.startsWith("INTEGER")) return Number.isInteger(cell) ? null : "is not a whole number";
  if (type.startsWith("FLOAT")) return typeof cell === "number" ? null : "is not a number";
  if (type.startsWith("BLOB")) return Buffer.isBuffer(cell) ? null : "is not binary data";
  return typeof cell === "string" ? null : "is not text";
}

const schemas: Readonly<Record<string, Readonly<Record<string, z.ZodType>>>> = storedColumns;
const schemaOfColumn = (table: string, column: string): z.ZodType | undefined => schemas[table]?.[column];
