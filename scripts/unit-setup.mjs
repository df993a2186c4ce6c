// Before the unit tests: a folder in which their suites share what is slow to make; it goes when they are done.
import { spawn } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { availableParallelism, tmpdir } from "node:os";
import { join } from "node:path";
import { bundle } from "./bundle.mjs";
import { root } from "./freshness.mjs";

/** Solves the tables of the shipped circuits on every core. */
async function solveTables(folder) {
  const program = join(folder, "solveSharedTables.mjs");
  await bundle("core/testing/solveSharedTables.ts", program);
  const cores = availableParallelism();
  const ended = Array.from({ length: cores }, (_, place) => {
    const child = spawn(process.execPath, [program, String(place), String(cores)], {
      cwd: root,
      stdio: "inherit",
    });
    return new Promise((resolve) => child.once("close", resolve));
  });
  if ((await Promise.all(ended)).some((status) => status !== 0))
    throw new Error("the tables of the shipped circuits were not solved");
}

export default async function setUp({ testPathPatterns }) {
  const folder = mkdtempSync(join(tmpdir(), "airway-unit-"));
  process.env.AIRWAY_TEST_SHARED = folder;
  // A run of a few suites solves what it needs by itself.
  if (testPathPatterns.patterns.length === 0) await solveTables(folder);
}
