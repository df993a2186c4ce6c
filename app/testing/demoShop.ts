import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { closeDatabase } from "@db/database.server";
import { addJob } from "@db/repositories/jobs.server";
import { openDemoDatabase } from "@db/testing/demoDatabase";
import { RouterContextProvider } from "react-router";
import { adoptSharedTables } from "../../core/testing/sharedTables";
import { stopLines } from "../board/jobLine.server";
import { compileWith } from "../engine/engine.server";

let folder = "";
let job = 0;

/**
 * Opens the demo workshop in a data folder of its own, with a new job on the four-speed van; returns the job's number.
 */
export async function openDemoShop(): Promise<number> {
  compileWith(adoptSharedTables);
  folder = mkdtempSync(join(tmpdir(), "airway-routes-"));
  process.env.AIRWAY_ZONE = "UTC";
  const store = await openDemoDatabase(folder, new Date("2026-11-24T10:00:00Z"));
  job = await store.write((transaction) =>
    addJob({ formToken: "t", vehicleId: 1, circuitId: "whimbrel-four-speed", words: "" }, transaction),
  );
  return job;
}

export async function closeDemoShop(): Promise<void> {
  await stopLines();
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
}

export type Fields = Record<string, string | readonly string[]>;

/** A route's answer: its data, or the status and location of a response thrown or returned. */
export async function answer(
  work: (args: never) => Promise<unknown>,
  fields: Fields | null,
  id = String(job),
  context = new RouterContextProvider(),
) {
  const body = new FormData();
  for (const [name, values] of Object.entries(fields ?? {}))
    for (const value of [values].flat()) body.append(name, value);
  const request = new Request("http://127.0.0.1/x", fields ? { method: "POST", body } : {});
  try {
    return read(await work({ request, params: { id }, context } as never));
  } catch (thrown) {
    return read(thrown);
  }
}

function read(result: unknown): { status: number; location: string | null; data: Record<string, unknown> } {
  if (result instanceof Response)
    return { status: result.status, location: result.headers.get("location"), data: {} };
  if (result instanceof Error) throw result;
  const own = result as { type?: string; data?: Record<string, unknown>; init?: { status?: number } };
  if (own?.type === "DataWithResponseInit")
    return { status: own.init?.status ?? 200, location: null, data: own.data ?? {} };
  return { status: 200, location: null, data: (result ?? {}) as Record<string, unknown> };
}

/** A resource route's answer: its status and its JSON. */
export async function json(
  work: (args: never) => Promise<Response>,
  request: Request,
  params: Record<string, string> = {},
  context = new RouterContextProvider(),
) {
  const response = await work({ request, params: { id: String(job), ...params }, context } as never);
  return { status: response.status, body: (await response.json()) as Record<string, unknown> };
}
export const asked = (query: string) => new Request(`http://127.0.0.1/x?${query}`);
export const posted = (fields: Record<string, string | Blob>) => {
  const body = new FormData();
  for (const [name, value] of Object.entries(fields)) body.append(name, value);
  return new Request("http://127.0.0.1/x", { method: "POST", body });
};
