import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parsedJson } from "@core/formats/parsedJson";
import {
  blobFile,
  cellSchema,
  type ShopBundle,
  shopBundleSchema,
  shopContents,
  tableFile,
} from "@core/formats/shopBundle";
import { problemsOf, problemText } from "@core/problem/problem";
import { strFromU8, strToU8, zipSync } from "fflate";
import { z } from "zod";
import { databaseFile, migrate } from "../databaseFile.server";
import { dataFolder } from "../dataFolder.server";
import { migrations } from "../migrations/index";
import { type Cell, PlainSqlite } from "./plainSqlite.server";
import { type Column, cellFault, columnsOf } from "./rowCheck.server";
import { unzip } from "./unzip.server";

/** Tables that are derived from others, or that say nothing about the shop. */
const derived = /^(sqlite_|jobSearch|SequelizeMeta$|faultCounts$|repairSums$|importing$|acting$|jobLines$)/;

/** All files of a bundle carry one date, so that the same shop makes the same bytes. */
const fixedDate = new Date(2000, 0, 1);

async function tablesOf(own: PlainSqlite): Promise<{ name: string; columns: Column[] }[]> {
  const names = (await own.all("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name")).flatMap(
    ({ name }) => (derived.test(String(name)) ? [] : [String(name)]),
  );
  return Promise.all(
    names.map(async (name) => ({
      name,
      columns: (await columnsOf(own, name)).sort((a, b) => (a.name < b.name ? -1 : 1)),
    })),
  );
}

/** The complete shop as one open bundle: every table as lines of JSON, pictures and recordings as files. */
export async function shopBundle(): Promise<Uint8Array> {
  const folder = mkdtempSync(join(tmpdir(), "airway-bundle-"));
  try {
    // It reads a copy, which does not change meanwhile.
    const copy = join(folder, "copy.sqlite");
    const source = await PlainSqlite.open(databaseFile(dataFolder()));
    await source.copyTo(copy).finally(() => source.close());
    const own = await PlainSqlite.open(copy);
    try {
      return await bundleOf(own);
    } finally {
      await own.close();
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function bundleOf(own: PlainSqlite): Promise<Uint8Array> {
  const files: Record<string, Uint8Array> = {};
  const tables: ShopBundle["tables"] = [];
  for (const { name, columns } of await tablesOf(own)) {
    const rows = await own.all(`SELECT rowid AS "rowid of it", * FROM "${name}" ORDER BY rowid`);
    const lines = rows.map((row, place) =>
      JSON.stringify(
        columns.map(({ name: column }) => {
          const cell = row[column] ?? null;
          if (!Buffer.isBuffer(cell)) return cell;
          const blob = blobFile(name, place, column);
          files[blob] = new Uint8Array(cell);
          return { blob };
        }),
      ),
    );
    tables.push({ name, columns: columns.map((column) => column.name), rows: rows.length });
    files[tableFile(name)] = strToU8(lines.map((line) => `${line}\n`).join(""));
  }
  const done = await own.all("SELECT name FROM SequelizeMeta ORDER BY name DESC LIMIT 1");
  const contents: ShopBundle = {
    format: "airway-shop",
    version: 1,
    schema: String(done[0]?.name ?? ""),
    tables,
  };
  return zipSync(
    { [shopContents]: strToU8(`${JSON.stringify(contents, null, 1)}\n`), ...files },
    { mtime: fixedDate },
  );
}

type Read<T> = { readonly value: T } | { readonly problems: readonly string[] };

/** What a bundle contains, and the path of the database made from it. */
export interface UnpackedShop {
  readonly file: string;
  readonly tables: readonly { readonly name: string; readonly rows: number }[];
}

/**
 * Makes a database from a bundle, in a folder of its own: all of it, or nothing. The audit trail is copied as written;
 * searches and counts are computed again.
 */
export async function unpackShop(bytes: Uint8Array, folder: string): Promise<Read<UnpackedShop>> {
  const unzipped = unzip(bytes, { files: 500_000, bytes: 1_000_000_000, fileBytes: 400_000_000 });
  if ("problems" in unzipped) return unzipped;
  const files = unzipped.value;
  const contents = contentsOf(files);
  if ("problems" in contents) return contents;
  const { schema, tables } = contents.value;
  if (!migrations.some(({ name }) => name === schema))
    return { problems: [`${shopContents}: schema: ${schema} is from a later Airway; update Airway first`] };
  await migrate(folder, schema);
  const own = await PlainSqlite.open(databaseFile(folder));
  try {
    const problems = await fill(own, tables, files);
    if (problems.length > 0) return { problems };
  } finally {
    await own.close();
  }
  // A bundle of an earlier Airway is upgraded.
  await migrate(folder);
  return { value: { file: databaseFile(folder), tables } };
}

function contentsOf(files: Readonly<Record<string, Uint8Array>>): Read<ShopBundle> {
  const own = files[shopContents];
  if (!own) return { problems: [`${shopContents} is missing from the bundle`] };
  let input: unknown;
  try {
    input = JSON.parse(strFromU8(own));
  } catch (thrown) {
    return { problems: [`${shopContents}: this is not valid JSON: ${(thrown as Error).message}`] };
  }
  const parsed = shopBundleSchema.safeParse(input);
  return parsed.success
    ? { value: parsed.data }
    : { problems: problemsOf(parsed.error, input).map((own) => `${shopContents}: ${problemText(own)}`) };
}

async function fill(
  own: PlainSqlite,
  tables: ShopBundle["tables"],
  files: Readonly<Record<string, Uint8Array>>,
): Promise<string[]> {
  const here = new Map((await tablesOf(own)).map(({ name, columns }) => [name, columns]));
  const problems = tables.flatMap(({ name, columns }) =>
    here
      .get(name)
      ?.map((column) => column.name)
      .join() === columns.join()
      ? []
      : [`${tableFile(name)}: this Airway has no such table`],
  );
  if (problems.length > 0) return problems;
  // The search text of a job is computed when the job is added, from its vehicle and circuit.
  const first = ["circuits", "vehicles"];
  const inOrder = [...tables].sort((a, b) => Number(first.includes(b.name)) - Number(first.includes(a.name)));
  await own.run("PRAGMA foreign_keys = OFF; BEGIN; INSERT INTO importing (id) VALUES (1)");
  try {
    for (const { name, columns, rows } of inOrder) {
      const read = rowsOf(name, here.get(name) ?? [], rows, files);
      if ("problems" in read) throw new Error(read.problems.join("; "));
      const names = columns.map((column) => `"${column}"`).join(", ");
      const marks = columns.map(() => "?").join(", ");
      await own.each(`INSERT INTO "${name}" (${names}) VALUES (${marks})`, read.value);
    }
    await own.run("DELETE FROM importing; COMMIT");
  } catch (thrown) {
    await own.run("ROLLBACK");
    return [(thrown as Error).message];
  }
  return own.faults();
}

const rowSchema = z.array(cellSchema);

function rowsOf(
  table: string,
  columns: readonly Column[],
  count: number,
  files: Readonly<Record<string, Uint8Array>>,
): Read<Cell[][]> {
  const own = files[tableFile(table)];
  if (!own) return { problems: [`${tableFile(table)} is missing from the bundle`] };
  const lines = strFromU8(own).split("\n").slice(0, -1);
  if (lines.length !== count)
    return { problems: [`${tableFile(table)}: expected ${count} rows, got ${lines.length}`] };
  const rows: Cell[][] = [];
  for (const [place, line] of lines.entries()) {
    const read = cellsOf(line, table, columns, files);
    if ("problems" in read)
      return { problems: read.problems.map((problem) => `${tableFile(table)}, row ${place + 1}${problem}`) };
    rows.push([...read.value]);
  }
  return { value: rows };
}

/** One row of a table: its cells, each of its column's type; refused with what is wrong, to follow the row's place. */
function cellsOf(
  line: string,
  table: string,
  columns: readonly Column[],
  files: Readonly<Record<string, Uint8Array>>,
): Read<readonly Cell[]> {
  const input = parsedJson(line);
  const parsed = rowSchema.safeParse(input);
  if (input === undefined) return { problems: [": this is not valid JSON"] };
  if (!parsed.success || parsed.data.length !== columns.length)
    return { problems: [`: expected ${columns.length} plain cells`] };
  const cells: Cell[] = [];
  for (const [index, cell] of parsed.data.entries()) {
    const column = columns[index] as Column;
    const bytes = cell !== null && typeof cell === "object" ? files[cell.blob] : undefined;
    if (cell !== null && typeof cell === "object" && !bytes)
      return { problems: [`, ${column.name}: ${cell.blob} is not in the bundle`] };
    const value = bytes ? Buffer.from(bytes) : (cell as Cell);
    const fault = cellFault(table, column, value);
    if (fault) return { problems: [`, ${column.name}: ${fault}`] };
    cells.push(value);
  }
  return { value: cells };
}
