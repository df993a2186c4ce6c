import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { defineConfig, devices } from "@playwright/test";

const port = 4399;
// One data folder a run: kept in the environment, since this file is read again by every worker.
process.env.AIRWAY_E2E_DATA ??= mkdtempSync(join(tmpdir(), "airway-e2e-"));

export default defineConfig({
  testDir: "e2e",
  workers: 1,
  // Far longer than anything takes: a machine many times slower for a while fails no test. Speed is measured by the benchmarks.
  timeout: 600_000,
  expect: { timeout: 180_000 },
  forbidOnly: true,
  reporter: "list",
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    trace: "off",
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  projects: [
    { name: "desktop", testIgnore: /phone/, use: { viewport: { width: 1280, height: 800 } } },
    {
      name: "phone",
      testMatch: /phone/,
      use: { ...devices["Pixel 7"], viewport: { width: 390, height: 844 } },
    },
  ],
  webServer: {
    command: "node scripts/start.mjs",
    url: `http://127.0.0.1:${port}/favicon.svg`,
    reuseExistingServer: false,
    timeout: 600_000,
    env: { AIRWAY_PORT: String(port), AIRWAY_DATA: process.env.AIRWAY_E2E_DATA, AIRWAY_ZONE: "UTC" },
  },
});
