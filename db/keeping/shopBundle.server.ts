import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
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
import { databaseFile, dataFolder, migrate } from "../databaseFile.server";
import { migrations } from "../migrations/index";
import { type Cell, PlainSqlite } from "./plainSqlite.server";
import { unzip } from "./unzip.server";

/** Tables that are derived from others, or that say nothing about the shop. */
const derived = /^(sqlite_|jobSearch|SequelizeMeta$|faultCounts$|repairSums$|importing$|jobLines$)/;

/** All files of a bundle carry one date, so that the same shop makes the same bytes. */
const fixedDate = new Date(2000, 0, 1);

async function tablesOf(own: PlainSqlite): Promise<{ name: string; columns: string[] }[]> {
  const names = (await own.all("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name")).flatMap(
    ({ name }) => (derived.test(String(name)) ? [] : [String(name)]),
  );
  return Promise.all(
    names.map(async (name) => ({
      name,
      columns: (await own.all(`PRAGMA table_info("${name}")`)).map((column) => String(column.name)).sort(),
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
        columns.map((column) => {
          const cell = row[column] ?? null;
          if (!Buffer.isBuffer(cell)) return cell;
          const blob = blobFile(name, place, column);
          files[blob] = new Uint8Array(cell);
          return { blob };
        }),
      ),
    );
    tables.push({ name, columns, rows: rows.length });
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
    here.get(name)?.join() === columns.join() ? [] : [`${tableFile(name)}: this Airway has no such table`],
  );
  if (problems.length > 0) return problems;
  // The search text of a job is computed when the job is added, from its vehicle and circuit.
  const first = ["circuits", "vehicles"];
  const inOrder = [...tables].sort((a, b) => Number(first.includes(b.name)) - Number(first.includes(a.name)));
  await own.run("PRAGMA foreign_keys = OFF; BEGIN; INSERT INTO importing (id) VALUES (1)");
  try {
    for (const { name, columns, rows } of inOrder) {
      const read = rowsOf(name, columns.length, rows, files);
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
  name: string,
  width: number,
  count: number,
  files: Readonly<Record<string, Uint8Array>>,
): Read<Cell[][]> {
  const own = files[tableFile(name)];
  if (!own) return { problems: [`${tableFile(name)} is missing from the bundle`] };
  const lines = strFromU8(own).split("\n").slice(0, -1);
  if (lines.length !== count)
    return { problems: [`${tableFile(name)}: expected ${count} rows, got ${lines.length}`] };
  const rows: Cell[][] = [];
  for (const [place, line] of lines.entries()) {
    const at = `${tableFile(name)}, row ${place + 1}`;
    let input: unknown;
    try {
      input = JSON.parse(line);
    } catch {
      return { problems: [`${at}: this is not valid JSON`] };
    }
    const parsed = rowSchema.safeParse(input);
    if (!parsed.success || parsed.data.length !== width)
      return { problems: [`${at}: expected ${width} plain cells`] };
    const cells: Cell[] = [];
    for (const cell of parsed.data) {
      if (cell === null || typeof cell !== "object") cells.push(cell);
      else {
        const bytes = files[cell.blob];
        if (!bytes) return { problems: [`${at}: ${cell.blob} is not in the bundle`] };
        cells.push(Buffer.from(bytes));
      }
    }
    rows.push(cells);
  }
  return { value: rows };
}
