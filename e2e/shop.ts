// A shop of its own for each file of browser tests, so that files run side by side and none sees another's data.
import { type ChildProcess, spawn } from "node:child_process";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { test as base } from "@playwright/test";

export { type BrowserContext, expect, type Page } from "@playwright/test";

const firstPort = 4400;

/**
 * Starts Airway on a data folder; resolves once it serves.
 * @param networkPort of the listener for the shop's network, should a test open it
 */
export async function startServer(port: number, data: string, networkPort = 0): Promise<ChildProcess> {
  const server = spawn(process.execPath, ["scripts/serve.mjs"], {
    env: {
      ...process.env,
      AIRWAY_PORT: String(port),
      AIRWAY_NETWORK_PORT: String(networkPort),
      AIRWAY_DATA: data,
      AIRWAY_ZONE: "UTC",
    },
    stdio: ["ignore", "pipe", "inherit"],
  });
  await new Promise<void>((resolve, reject) => {
    server.once("exit", (code) => reject(new Error(`the server ended with ${code} before it was ready`)));
    server.stdout?.on("data", (chunk: Buffer) => {
      if (chunk.toString().includes("Airway is ready")) resolve();
    });
  });
  return server;
}

/** Stops a server; resolves once it has ended. */
export async function stopServer(server: ChildProcess, signal: NodeJS.Signals = "SIGTERM"): Promise<void> {
  const gone = new Promise((resolve) => server.once("exit", resolve));
  server.kill(signal);
  await gone;
}

/** The demo workshop as it was loaded before the tests, in a data folder of its own. */
export function demoData(): string {
  const data = mkdtempSync(join(tmpdir(), "airway-e2e-"));
  cpSync(process.env.AIRWAY_E2E_DEMO ?? "", data, { recursive: true });
  return data;
}

/** A worker's server, with new demo data for every file of tests. */
class Shop {
  private file = "";
  private server: ChildProcess | null = null;
  private data = "";
  private readonly port: number;

  constructor(worker: number) {
    this.port = firstPort + worker;
  }

  /** The address of the server for a file's tests; a new server for each file. */
  async addressFor(file: string): Promise<string> {
    if (this.file !== file) {
      await this.close();
      this.data = demoData();
      this.server = await startServer(this.port, this.data);
      this.file = file;
    }
    return `http://127.0.0.1:${this.port}`;
  }

  async close(): Promise<void> {
    if (!this.server) return;
    await stopServer(this.server);
    this.server = null;
    this.file = "";
    rmSync(this.data, { recursive: true, force: true });
  }
}

export const test = base.extend<object, { shop: Shop }>({
  shop: [
    // biome-ignore lint/correctness/noEmptyPattern: a fixture names what it needs by destructuring, and this one needs nothing
    async ({}, use, { parallelIndex }) => {
      const shop = new Shop(parallelIndex);
      await use(shop);
      await shop.close();
    },
    { scope: "worker", timeout: 120_000 },
  ],
  baseURL: async ({ shop }, use, { file }) => {
    await use(await shop.addressFor(file));
  },
});
