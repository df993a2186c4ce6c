// A server of its own on a data folder, for benchmarks that use it over HTTP as a browser does.
import { type ChildProcess, spawn } from "node:child_process";
import { readFileSync } from "node:fs";

export class ShopServer {
  private child: ChildProcess | null = null;

  constructor(
    readonly folder: string,
    readonly port: number,
  ) {}

  readonly address = (path: string): string => `http://127.0.0.1:${this.port}${path}`;

  /** Starts the built server; resolves once it is ready, with the seconds that took. */
  async start(): Promise<number> {
    const began = performance.now();
    const child = spawn(process.execPath, ["scripts/serve.mjs"], {
      env: {
        ...process.env,
        AIRWAY_PORT: String(this.port),
        AIRWAY_DATA: this.folder,
        AIRWAY_ZONE: "UTC",
        AIRWAY_LOG: "silent",
      },
      stdio: ["ignore", "pipe", "inherit"],
    });
    this.child = child;
    // A benchmark that fails does not leave its server behind.
    process.once("exit", () => child.kill("SIGKILL"));
    await new Promise<void>((resolve, reject) => {
      child.once("exit", (code) => reject(new Error(`the server ended with ${code}`)));
      child.stdout?.on("data", (chunk: Buffer) => {
        if (chunk.toString().includes("Airway is ready")) resolve();
      });
    });
    return (performance.now() - began) / 1000;
  }

  async stop(signal: NodeJS.Signals = "SIGTERM"): Promise<void> {
    const { child } = this;
    if (!child) return;
    this.child = null;
    const gone = new Promise((resolve) => child.once("exit", resolve));
    child.kill(signal);
    await gone;
  }

  /** Resident memory of the server now, in megabytes; 0 if it is not running. */
  residentMegabytes(): number {
    const pid = this.child?.pid;
    if (pid === undefined) return 0;
    try {
      const kilobytes = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1];
      return Number(kilobytes ?? 0) / 1024;
    } catch {
      return 0;
    }
  }

  /** Posts as a page of the same origin does. */
  post(path: string, body: BodyInit, signal?: AbortSignal): Promise<Response> {
    return fetch(this.address(path), {
      method: "POST",
      body,
      redirect: "manual",
      headers: { "sec-fetch-site": "same-origin" },
      ...(signal ? { signal } : {}),
    });
  }

  /** Enters what a speed does; resolves with the status and the milliseconds until the answer. */
  async enterReading(
    job: number,
    token: string,
    setting = "1",
  ): Promise<{ status: number; milliseconds: number }> {
    const began = performance.now();
    const fields = {
      intent: "own-reading",
      token,
      test: "airflow",
      key: "run",
      setting,
      result: "none",
    };
    const answer = await this.post(`/jobs/${job}/entries`, new URLSearchParams(fields));
    await answer.text();
    return { status: answer.status, milliseconds: performance.now() - began };
  }
}

/** The value below which a given share of the values lies. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)] ?? Number.NaN;
}
