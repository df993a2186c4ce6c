// npm run bench:upgrade: the process that opens an older database is killed (SIGKILL) at a random moment, over all
// versions; then the database is opened again and must be complete.
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openDatabase } from "@db/database.server";
import { databaseFile, migrate } from "@db/databaseFile.server";
import { PlainSqlite } from "@db/keeping/plainSqlite.server";
import { migrations } from "@db/migrations/index";

const rounds = Number(process.env.AIRWAY_ROUNDS ?? 200);
/** Longer than an upgrade takes here, so that kills fall on all of it and some come too late. */
const longestMilliseconds = Number(process.env.AIRWAY_LONGEST ?? 2500);
const tsx = createRequire(import.meta.url).resolve("tsx/cli");

/** Opens the database in a process of its own and kills it; true if it was still working. */
function killed(folder: string, after: number): Promise<boolean> {
  const child = spawn(process.execPath, [tsx, "db/testing/upgrader.ts", folder], {
    stdio: "ignore",
    detached: true,
  });
  const timer = setTimeout(() => process.kill(-(child.pid ?? 0), "SIGKILL"), after);
  return new Promise((done) =>
    child.once("exit", (code) => {
      clearTimeout(timer);
      done(code === null);
    }),
  );
}

async function oneRound(version: string): Promise<{ cut: boolean; whole: boolean }> {
  const folder = mkdtempSync(join(tmpdir(), "airway-upgrade-"));
  try {
    if (version !== "new") await migrate(folder, version);
    const cut = await killed(folder, Math.random() * longestMilliseconds);
    const store = await openDatabase(folder);
    await store.close();
    const own = await PlainSqlite.open(databaseFile(folder));
    const done = await own.all("SELECT name FROM SequelizeMeta");
    const whole = done.length === migrations.length && (await own.faults()).length === 0;
    await own.close();
    return { cut, whole };
  } catch (thrown) {
    process.stderr.write(`${version}: ${String(thrown)}\n`);
    return { cut: true, whole: false };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const versions = ["new", ...migrations.slice(0, -1).map(({ name }) => name)];
let [cut, broken] = [0, 0];
for (let round = 0; round < rounds; round++) {
  const found = await oneRound(versions[round % versions.length] ?? "new");
  if (found.cut) cut += 1;
  if (!found.whole) broken += 1;
}
process.stdout.write(
  `${rounds} starts over ${versions.length} versions, ${cut} killed at work, ${broken} broken\n`,
);
process.exitCode = broken === 0 ? 0 : 1;
