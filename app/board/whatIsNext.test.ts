// The board's line for a job: worked out on a thread, and in this process if the thread dies.
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, jest, test } from "@jest/globals";
import { jobFactsAt } from "../job/jobView.server";
import { logger } from "../shell/log.server";
import { bundledEngineWorker } from "../testing/bundledEngineWorker";
import { closeDemoShop, openDemoShop } from "../testing/demoShop";
import { whatIsNext, workOutOn } from "./whatIsNext.server";

const folder = mkdtempSync(join(tmpdir(), "airway-board-"));
beforeAll(async () => void (await openDemoShop()));
afterAll(async () => {
  await closeDemoShop();
  rmSync(folder, { recursive: true, force: true });
});

test("the thread gives the same line as this process; if it dies, this process takes over and the error is logged", async () => {
  const facts = await jobFactsAt("4");
  const here = await whatIsNext(facts);
  expect(here.test).not.toBeNull();

  workOutOn(await bundledEngineWorker(folder));
  const { state, replace, p } = here.verdict;
  expect(await whatIsNext(facts)).toEqual({ verdict: { state, replace, p }, test: here.test });

  const logged = jest.spyOn(logger, "error").mockImplementation(() => undefined);
  const dies = join(folder, "dies.mjs");
  writeFileSync(
    dies,
    'import { parentPort } from "node:worker_threads"; parentPort.on("message", () => { throw new Error("out of memory"); });',
  );
  workOutOn(dies);
  expect(await whatIsNext(facts)).toEqual(here);
  expect(logged).toHaveBeenCalledWith(
    expect.objectContaining({ message: "out of memory" }),
    expect.stringContaining("stopped once"),
  );
});
