import { spawnSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startServer, stopServer } from "./shop";

const port = 4399;

/** Builds Airway where a source changed, and loads the demo workshop once: every file of tests starts from a copy of it. */
export default async function setUp(): Promise<void> {
  const built = spawnSync(process.execPath, ["scripts/build.mjs"], { stdio: "inherit" });
  if (built.status !== 0) throw new Error("the build failed");
  const demo = mkdtempSync(join(tmpdir(), "airway-e2e-demo-"));
  await stopServer(await startServer(port, demo));
  process.env.AIRWAY_E2E_DEMO = demo;
}
