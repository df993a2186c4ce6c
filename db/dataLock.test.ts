// One writer per data folder: another process's lock is respected, reported, and gone once that process is gone.
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, expect, test } from "@jest/globals";
import { DataFolderInUse, lockDataFolder } from "./dataLock.server";

let folder = "";
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "airway-lock-"));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const holder = { pid: process.pid, address: "http://127.0.0.1:4310/", since: "2026-11-24T10:00:00.000Z" };

/** Another process that holds the folder until it is killed. */
function otherHolder(): Promise<{ readonly pid: number; readonly kill: () => Promise<void> }> {
  const tsx = createRequire(import.meta.url).resolve("tsx/cli");
  const program = join(process.cwd(), "db", "testing", "lockHolder.ts");
  const child = spawn(process.execPath, [tsx, program, folder], {
    stdio: ["ignore", "pipe", "inherit"],
    detached: true,
  });
  const gone = new Promise<void>((done) => child.once("close", () => done()));
  return new Promise((ready) =>
    child.stdout.on("data", (said: Buffer) =>
      ready({
        pid: Number(said.toString()),
        kill: async () => {
          process.kill(-(child.pid ?? 0), "SIGKILL");
          await gone;
        },
      }),
    ),
  );
}

test("a folder that another process holds is refused with who holds it, and free once that process was killed", async () => {
  const other = await otherHolder();
  const refusal = await lockDataFolder(folder, holder).catch((thrown: unknown) => thrown);
  expect(refusal).toBeInstanceOf(DataFolderInUse);
  expect((refusal as Error).message).toContain(`process ${other.pid}, at http://127.0.0.1:9/`);
  expect((refusal as Error).message).toMatch(/set AIRWAY_DATA to another folder/);
  await other.kill();
  const release = await lockDataFolder(folder, holder);
  await release();
  await (await lockDataFolder(folder, holder))();
});
