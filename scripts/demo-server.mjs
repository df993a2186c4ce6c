// A server of its own on the demo workshop, for scripts that look at it or measure it.
import { spawn } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { root } from "./freshness.mjs";

/** Starts Airway on a port with a new data folder, and a browser; resolves once both answer. */
export async function demoServer(port) {
  const server = spawn(process.execPath, [join(root, "scripts", "start.mjs")], {
    env: {
      ...process.env,
      AIRWAY_PORT: String(port),
      AIRWAY_DATA: mkdtempSync(join(tmpdir(), "airway-demo-")),
      AIRWAY_ZONE: "UTC",
    },
    stdio: ["ignore", "pipe", "inherit"],
  });
  await new Promise((resolve) =>
    server.stdout.on("data", (chunk) => String(chunk).includes("ready") && resolve()),
  );
  const browser = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
  });
  return {
    browser,
    address: `http://127.0.0.1:${port}`,
    stop: async () => {
      await browser.close();
      server.kill("SIGTERM");
    },
  };
}
