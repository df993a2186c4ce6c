import { spawnSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startServer, stopServer } from "./shop";

const port = 4399;

/** Opens the board of a shop that has just started, until every job's line is worked out. */
async function readBoard(): Promise<void> {
  for (let again = 0; again < 600; again++) {
    const board = await (await fetch(`http://127.0.0.1:${port}/`)).text();
    if (!board.includes("reading the circuit")) return;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  throw new Error("the board of a new shop never has all its lines");
}

/**
 * Builds Airway if a source file changed, and loads the demo workshop once. Every file of tests starts from a copy of
 * it, whose board need not be worked out again.
 */
export default async function setUp(): Promise<void> {
  const built = spawnSync(process.execPath, ["scripts/build.mjs"], { stdio: "inherit" });
  if (built.status !== 0) throw new Error("the build failed");
  const demo = mkdtempSync(join(tmpdir(), "airway-e2e-demo-"));
  const server = await startServer(port, demo);
  try {
    await readBoard();
  } finally {
    await stopServer(server);
  }
  process.env.AIRWAY_E2E_DEMO = demo;
}
