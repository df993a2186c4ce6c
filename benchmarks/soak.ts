// npm run bench:soak: an hour of six technicians' mixed work on 200 open jobs of 60 circuits, with kills, imports,
// backups and one restore. At the end every acknowledged reading must be stored exactly once, and memory must have
// stayed bounded.
import { rmSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as pause } from "node:timers/promises";
import { chanceFrom } from "@core/chance/chance";
import { closeDatabase, database } from "@db/database.server";
import { databaseFile } from "@db/databaseFile.server";
import { newestBackup } from "@db/keeping/backup.server";
import { PlainSqlite } from "@db/keeping/plainSqlite.server";
import { exportRecords } from "@db/repositories/records.server";
import { shopName } from "@db/repositories/settings.server";
import { recordsCsv } from "../app/records/recordsCsv";
import { manyJobs } from "./load/manyJobs";
import { quantile, ShopServer } from "./load/shopServer";

const minutes = Number(process.env.AIRWAY_SOAK_MINUTES ?? 60);
const technicians = 6;
const killEveryMinutes = 5;
const { folder, jobs, speeds } = await manyJobs(200, 60);
await database();
const [record] = await exportRecords();
const name = await shopName();
await closeDatabase();
const shop = new ShopServer(folder, 5398);
const secondsToStart = [await shop.start()];

const began = Date.now();
const until = began + minutes * 60_000;
const share = (): number => (Date.now() - began) / (until - began);
const chance = chanceFrom(23);
const pick = <T>(of: readonly T[]): T => of[Math.floor(chance.uniform() * of.length)] as T;

/** Readings the server acknowledged, by id, with the time. */
const acknowledged = new Map<string, number>();
const waits: Record<string, number[]> = { reading: [], board: [], page: [] };
const failures = new Map<string, number>();
const megabytes: number[] = [];
/** Answers do not count while the server is down or starting. */
let isUp = true;
/** Start and end of the restore, which discards what was acknowledged in between. */
let lostByRestore: readonly [number, number] | null = null;

function fail(what: string): void {
  failures.set(what, (failures.get(what) ?? 0) + 1);
}

async function timed(kind: string, path: string): Promise<void> {
  const at = performance.now();
  const answer = await fetch(shop.address(path));
  await answer.text();
  waits[kind]?.push(performance.now() - at);
  if (answer.status >= 500 && isUp) fail(`${answer.status} ${path.replace(/\d+/g, "N")}`);
}

async function enter(job: number): Promise<void> {
  const token = crypto.randomUUID();
  for (let again = 0; again < 200; again++) {
    try {
      const { status, milliseconds } = await shop.enterReading(job, token, speeds.get(job));
      if (status < 500) {
        waits.reading?.push(milliseconds);
        if (status === 200) acknowledged.set(token, Date.now());
        else fail(`${status} reading`);
        return;
      }
      if (isUp) fail(`${status} reading`);
    } catch {
      // The server is away, so a browser's queue sends it again.
    }
    await pause(500);
  }
  fail("a reading never got through");
}

async function note(job: number): Promise<void> {
  const body = new FormData();
  body.set("intent", "note");
  body.set("token", crypto.randomUUID());
  body.set("words", "a screw behind the carpet");
  const answer = await shop.post(`/jobs/${job}/notes`, body);
  await answer.text();
  if (answer.status >= 500 && isUp) fail(`${answer.status} note`);
}

async function work(): Promise<void> {
  while (Date.now() < until) {
    const job = pick(jobs);
    try {
      await timed("page", `/jobs/${job}/probe`);
      for (let i = 0; i < 3; i++) {
        await enter(job);
        await pause(1000 * chance.uniform());
      }
      await note(job);
      await timed("board", "/");
      await timed("page", pick([`/jobs/${job}/verdict`, `/jobs/${job}/complaint`, "/records", "/shelf"]));
    } catch {
      // The connection broke: the server was killed.
    }
    await pause(2000 * chance.uniform());
  }
}

async function killNowAndThen(): Promise<void> {
  for (;;) {
    await pause(killEveryMinutes * 60_000);
    if (Date.now() > until - 60_000) return;
    isUp = false;
    await shop.stop("SIGKILL");
    secondsToStart.push(await shop.start());
    isUp = true;
  }
}

async function watchMemory(): Promise<void> {
  while (Date.now() < until) {
    const now = shop.residentMegabytes();
    if (now > 0) megabytes.push(now);
    await pause(2000);
  }
}

let imports = 0;
let backups = 0;
async function keep(): Promise<void> {
  let restored = false;
  for (let round = 0; Date.now() < until - 90_000; round++) {
    await pause(70_000);
    try {
      const csv = recordsCsv(
        Array.from({ length: 4000 }, (_, i) => ({
          ...record,
          key: `soak-${round}-${i}`,
          vehicle: `van ${i}`,
        })) as never,
      );
      if ((await shop.post("/records/in/file?store=yes", csv)).status === 202) imports += 1;
      await pause(30_000);
      const from = Date.now();
      const backup = await shop.post("/records/keeping", new URLSearchParams({ intent: "back-up" }));
      await backup.text();
      if (backup.status === 200) backups += 1;
      if (!restored && share() > 0.5 && backup.status === 200) {
        const file = newestBackup(new Date())?.name ?? "";
        const fields = new URLSearchParams({ intent: "restore", name: file, shop: name });
        const answer = await shop.post("/records/keeping", fields);
        await answer.text();
        if (answer.status === 200) {
          restored = true;
          lostByRestore = [from, Date.now()];
        } else fail(`${answer.status} restore`);
      }
    } catch {
      // Killed in the middle; the next round tries again.
    }
  }
}

await Promise.all([
  ...Array.from({ length: technicians }, () => work()),
  killNowAndThen(),
  watchMemory(),
  keep(),
]);
await pause(20_000);
const atRest = shop.residentMegabytes();
await shop.stop();

const own = await PlainSqlite.open(databaseFile(folder));
const stored = new Map<string, number>();
for (const { id } of await own.all("SELECT id FROM readings"))
  stored.set(String(id), (stored.get(String(id)) ?? 0) + 1);
const faults = await own.faults();
const [half] = await own.all("SELECT COUNT(*) AS n FROM jobs WHERE formToken LIKE 'soak-%'");
await own.close();
const missing = [...acknowledged].filter(
  ([id, at]) => !stored.has(id) && !(lostByRestore && at >= lostByRestore[0] && at <= lostByRestore[1]),
);
const twice = [...stored.values()].filter((count) => count > 1).length;
const line = (kind: string): string => {
  const own = waits[kind] ?? [];
  return `${kind}: ${own.length}, median ${quantile(own, 0.5).toFixed(0)} ms, 95th ${quantile(own, 0.95).toFixed(0)} ms`;
};
process.stdout.write(
  `${[
    `${minutes} minutes, ${technicians} technicians, ${jobs.length} jobs; ${secondsToStart.length - 1} kills, ${imports} imports, ${backups} backups, ${lostByRestore ? 1 : 0} restore`,
    `acknowledged readings: ${acknowledged.size}; lost: ${missing.length}; twice: ${twice}; database: ${faults.join("; ") || "sound"}`,
    `records brought in: ${String(half?.n)}`,
    ...Object.keys(waits).map(line),
    `start: ${secondsToStart.map((seconds) => seconds.toFixed(1)).join(" ")} s`,
    `memory: largest ${Math.max(...megabytes).toFixed(0)} MB, median ${quantile(megabytes, 0.5).toFixed(0)} MB, at rest ${atRest.toFixed(0)} MB`,
    `failures: ${[...failures].map(([what, count]) => `${what}: ${count}`).join(", ") || "none"}`,
  ].join("\n")}\n`,
);
rmSync(join(folder), { recursive: true, force: true });
process.exitCode = missing.length + twice + faults.length + failures.size === 0 ? 0 : 1;
