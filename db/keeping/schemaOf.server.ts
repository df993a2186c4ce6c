import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { databaseFile, migrate } from "../databaseFile.server";
import { PlainSqlite } from "./plainSqlite.server";

/** A database's schema, one line for each table (with its columns and references), index, trigger and view. */
export async function schemaOf(own: PlainSqlite): Promise<string[]> {
  const things = await own.all(
    "SELECT type, name, sql FROM sqlite_master WHERE sql IS NOT NULL AND name NOT LIKE 'sqlite%' ORDER BY type, name",
  );
  const lines: string[] = [];
  for (const { type, name, sql } of things) {
    const plain = String(sql).replaceAll(/\s+/g, " ").trim();
    const isTable = type === "table" && !/^CREATE VIRTUAL/i.test(plain);
    lines.push(`${String(type)} ${String(name)}: ${isTable ? await columnsOf(own, String(name)) : plain}`);
  }
  return lines;
}

async function columnsOf(own: PlainSqlite, table: string): Promise<string> {
  const columns = await own.all(`SELECT name, type, "notnull", dflt_value, pk FROM pragma_table_info(?)`, [
    table,
  ]);
  const references = await own.all(
    `SELECT "from", "table", "to", on_delete FROM pragma_foreign_key_list(?) ORDER BY "from"`,
    [table],
  );
  return JSON.stringify([
    columns.map((column) => Object.values(column)),
    references.map((own) => Object.values(own)),
  ]);
}

let expected: Promise<readonly string[]> | null = null;

/** The schema that this version's migrations produce; computed once. */
export function expectedSchema(): Promise<readonly string[]> {
  expected ??= (async () => {
    const folder = mkdtempSync(join(tmpdir(), "airway-schema-"));
    try {
      await migrate(folder);
      return await PlainSqlite.use(databaseFile(folder), schemaOf);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  })();
  return expected;
}

/** How a database's schema differs from the one this version's migrations produce. */
export async function schemaFaults(own: PlainSqlite): Promise<string[]> {
  const [wanted, found] = [new Set(await expectedSchema()), new Set(await schemaOf(own))];
  const nameOf = (line: string): string => line.slice(0, line.indexOf(":"));
  return [
    ...[...found].flatMap((line) =>
      wanted.has(line) ? [] : [`${nameOf(line)} is not part of an Airway database`],
    ),
    ...[...wanted].flatMap((line) => (found.has(line) ? [] : [`${nameOf(line)} is missing`])),
  ];
}
