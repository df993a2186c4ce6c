// npm run bench:crash: ten rounds of a thousand readings written in parallel, killed (SIGKILL) in the middle.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { closeDatabase, database } from "@db/database.server";
import { loadDemoWorld } from "@db/demoWorld.server";
import { crashOnce } from "../db/testing/crash";

const rounds = 10;
const writes = 1000;
const folder = mkdtempSync(join(tmpdir(), "airway-crash-"));
process.env.AIRWAY_DATA = folder;
await loadDemoWorld(await database(), join(process.cwd(), "demo"), new Date());
await closeDatabase();
let bad = 0;
for (let round = 0; round < rounds; round++) {
  const after = Math.floor((writes * (round + 0.5)) / rounds);
  const found = await crashOnce(folder, round * writes, writes, after);
  if (found.lost.length + found.twice + found.faults.length > 0) bad += 1;
  process.stdout.write(
    `killed after ${found.acknowledged} acknowledged: ${found.stored} there, ${found.lost.length} lost, ${found.twice} twice, ${found.faults.length === 0 ? "sound" : found.faults.join("; ")}\n`,
  );
}
process.stdout.write(bad === 0 ? "Nothing acknowledged was lost.\n" : `${bad} rounds went wrong.\n`);
rmSync(folder, { recursive: true, force: true });
process.exitCode = bad === 0 ? 0 : 1;
