import { spawn } from "node:child_process";
import { createRequire } from "node:module";
import { join } from "node:path";
import { databaseFile } from "../databaseFile.server";
import { PlainSqlite } from "../keeping/plainSqlite.server";

/** What was found after a writer was killed. */
export interface CrashFinding {
  readonly acknowledged: number;
  readonly stored: number;
  /** Readings acknowledged and missing, readings stored twice, and what SQLite finds wrong. */
  readonly lost: readonly string[];
  readonly twice: number;
  readonly faults: readonly string[];
}

/**
 * Has a process of its own write readings in parallel, kills it (SIGKILL) once some are acknowledged, and examines
 * what is left.
 * @param folder the data folder, with the demo workshop in it and no other user
 * @param first number of the first reading, so that rounds do not share ids
 */
export async function crashOnce(
  folder: string,
  first: number,
  count: number,
  killAfter: number,
): Promise<CrashFinding> {
  const tsx = createRequire(import.meta.url).resolve("tsx/cli");
  const child = spawn(
    process.execPath,
    [tsx, join(process.cwd(), "db", "testing", "crashWriter.ts"), String(first), String(count)],
    { env: { ...process.env, AIRWAY_DATA: folder }, stdio: ["ignore", "pipe", "inherit"], detached: true },
  );
  let said = "";
  const killed = new Promise<void>((done) => child.once("exit", () => done()));
  child.stdout.on("data", (piece: Buffer) => {
    said += piece.toString();
    // The runner and the writer are one process group, so both end at once.
    if (child.pid && said.split("\n").length > killAfter + 1) {
      try {
        process.kill(-child.pid, "SIGKILL");
      } catch {
        // It finished before it could be killed.
      }
    }
  });
  await killed;
  const acknowledged = said.split("\n").filter((line) => line.startsWith("crash-"));
  const own = await PlainSqlite.open(databaseFile(folder));
  try {
    const rows = await own.all(
      "SELECT id, COUNT(*) AS n FROM readings WHERE id LIKE 'crash-%' AND CAST(substr(id, 7) AS INTEGER) >= ? GROUP BY id",
      [first],
    );
    const there = new Set(rows.map(({ id }) => String(id)));
    const doubled = await own.all(
      "SELECT COUNT(*) AS n FROM (SELECT number FROM readings WHERE jobId = 6 GROUP BY number HAVING COUNT(*) > 1)",
    );
    return {
      acknowledged: acknowledged.length,
      stored: there.size,
      lost: acknowledged.filter((id) => !there.has(id)),
      twice: rows.filter(({ n }) => n !== 1).length + Number(doubled[0]?.n ?? 0),
      faults: await own.faults(),
    };
  } finally {
    await own.close();
  }
}
