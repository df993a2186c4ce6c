// The process that reads files from elsewhere: its answers, its end, and an unexpected death.
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, jest, test } from "@jest/globals";
import { logger } from "../shell/log.server";
import { importer, importOn } from "./importProcess.server";

const folder = mkdtempSync(join(tmpdir(), "airway-import-process-"));
const file = join(folder, "worker.mjs");

/** A worker that answers a file called `quick`, dies of one called `fatal`, and never finishes any other. */
const worker = `
process.on("disconnect", () => process.exit());
process.on("message", ({ id, takes }) => {
  process.send({ id, share: 0.5 });
  if (takes.file === "quick") process.send({ id, came: { problems: ["not a zip file"] } });
  if (takes.file === "fatal") process.kill(process.pid, "SIGKILL");
});`;

beforeAll(() => {
  writeFileSync(file, worker);
  importOn(file);
});
afterAll(() => {
  importOn(join(folder, "nowhere"));
  rmSync(folder, { recursive: true, force: true });
});

test("a task is answered, its progress is reported, and the next one goes to the same process", async () => {
  const own = importer();
  const shares: number[] = [];
  for (let i = 0; i < 2; i++)
    expect(await own.run("readShelf", { file: "quick" }, (share) => shares.push(share))).toEqual({
      problems: ["not a zip file"],
    });
  expect(shares).toEqual([0.5, 0.5]);
  own.end();
});

test("a stopped task reports it at once", async () => {
  const own = importer();
  const came = own.run("readShelf", { file: "endless" }, () => own.end());
  expect(await came).toEqual({ problems: ["The import was stopped."] });
  expect(await own.run("readShelf", { file: "quick" })).toEqual({ problems: ["The import was stopped."] });
});

test("a process that dies unexpectedly fails its task, and the cause is logged", async () => {
  const logged = jest.spyOn(logger, "error").mockImplementation(() => undefined);
  const own = importer();
  await expect(own.run("readShelf", { file: "fatal" })).rejects.toThrow("ended with SIGKILL");
  await expect(own.run("readShelf", { file: "quick" })).rejects.toThrow("ended with SIGKILL");
  expect(logged).toHaveBeenCalled();
});
