// What the pages of a job are told over their open connections, by a server of its own.
import type { Server } from "node:http";
import type { AddressInfo } from "node:net";
import { openDatabase, replaceDatabase } from "@db/database.server";
import { addReading } from "@db/repositories/readings.server";
import {
  addSeenJob,
  addSeenReading,
  deleteSeenReading,
  setOutOfReach,
} from "@db/repositories/seenJobs.server";
import { afterAll, afterEach, beforeAll, describe, expect, test } from "@jest/globals";
import express from "express";
import type { Visitor } from "../app/network/visitor.server";
import { closeDemoShop, openDemoShop } from "../app/testing/demoShop";
import { liveJobs, liveSeenJobs, watchJob } from "./liveJobs";

const at = new Date("2026-11-24T10:00:00Z");
const visitors: Readonly<Record<string, Visitor>> = {
  desk: { kind: "signed-in", place: { kind: "shop-computer" }, person: null },
  owner: {
    kind: "signed-in",
    place: { kind: "shop-computer" },
    person: { id: "o", name: "Front desk", role: "owner" },
  },
  phone: {
    kind: "signed-in",
    place: { kind: "device", device: { id: "p", name: "bay 2 phone", pairedAt: "", seenAt: "" } },
    person: { id: "t", name: "Bay two", role: "technician" },
  },
  stranger: { kind: "stranger" },
};

let server: Server;
let job = 0;
let address = "";
const open: AbortController[] = [];

beforeAll(async () => {
  job = await openDemoShop();
  const app = express();
  app.use((request, response, next) => {
    const visitor = visitors[String(request.headers.as)];
    if (visitor) response.visitor = visitor;
    next();
  });
  app.get("/jobs/:id/live", watchJob(liveJobs));
  app.get("/no-diagram/:id/live", watchJob(liveSeenJobs));
  server = app.listen(0, "127.0.0.1");
  await new Promise((resolve) => server.once("listening", resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterEach(() => {
  for (const one of open.splice(0)) one.abort();
});
afterAll(async () => {
  liveJobs.stop();
  liveSeenJobs.stop();
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  await closeDemoShop();
});

interface Pushed {
  readonly event: string;
  readonly version: number;
  readonly others?: readonly string[];
  readonly page?: { readonly version: number };
}

/** Connects as somebody; each call of the result resolves with the next push. */
async function connected(path: string, as: string): Promise<() => Promise<Pushed>> {
  const ending = new AbortController();
  open.push(ending);
  const answer = await fetch(address + path, { headers: { as }, signal: ending.signal });
  const pieces = answer.body?.pipeThrough(new TextDecoderStream()).getReader();
  let text = "";
  return async () => {
    for (;;) {
      const end = text.indexOf("\n\n");
      const block = end < 0 ? "" : text.slice(0, end);
      if (end >= 0) text = text.slice(end + 2);
      const [, event] = /^event: ?(.*)$/m.exec(block) ?? [];
      const [, body] = /^data: ?(.*)$/m.exec(block) ?? [];
      if (event && body) return { event, ...JSON.parse(body) } as Pushed;
      if (end >= 0) continue;
      const piece = await pieces?.read();
      if (!piece || piece.done) throw new Error("the connection was ended");
      text += piece.value;
    }
  };
}

const aSeenJob = (): Promise<number> =>
  addSeenJob({ formToken: crypto.randomUUID(), label: "van", words: "", seen: {}, complaint: [] }, at);
const reading = (id: string) => ({
  id,
  reading: { test: "airflow", key: "run", setting: "1", seen: "none" } as const,
  takenAt: at,
});

describe("a job without a diagram", () => {
  test("tells its pages of every change to it, by a number that grows, and of no other job's", async () => {
    const [own, other] = [await aSeenJob(), await aSeenJob()];
    const next = await connected(`/no-diagram/${own}/live`, "desk");
    const { event, version } = await next();
    expect(event).toBe("who");
    const versions = [version];
    for (const change of [
      () => addSeenReading(own, reading("a")),
      () => deleteSeenReading(own, "a", at),
      () => deleteSeenReading(own, "a", null),
      () => setOutOfReach(own, "motor-plug", true),
    ]) {
      await addSeenReading(other, reading(crypto.randomUUID()));
      expect(await change()).toBeNull();
      const told = await next();
      expect(told.event).toBe("change");
      versions.push(told.version);
    }
    expect(versions).toEqual([0, 1, 2, 3, 4]);
  });
});

describe("a job", () => {
  const measured = (volts: number) =>
    addReading({
      id: crypto.randomUUID(),
      jobId: job,
      reading: { test: "airflow", key: "run", setting: String(volts), seen: "none" },
      takenAt: at,
    });

  test("is told to a page that is alone, and pushed as a page where two look at it", async () => {
    const desk = await connected(`/jobs/${job}/live?page=probe`, "desk");
    const { version } = await desk();
    await measured(1);
    const alone = await desk();
    expect(alone.version).toBeGreaterThan(version);
    expect(alone.page).toBeUndefined();

    const phone = await connected(`/jobs/${job}/live?page=probe`, "phone");
    expect((await phone()).others).toEqual(["the shop’s computer"]);
    expect((await desk()).others).toEqual(["Bay two (bay 2 phone)"]);
    await measured(2);
    const [toDesk, toPhone] = [await desk(), await phone()];
    expect(toDesk.page?.version).toBe(toDesk.version);
    expect(toPhone).toEqual(toDesk);
  });

  test("is told anew after the database was replaced, by the number of the one that is there now", async () => {
    const next = await connected(`/jobs/${job}/live`, "owner");
    const { version } = await next();
    await replaceDatabase(() => openDatabase(process.env.AIRWAY_DATA));
    expect(await next()).toEqual({ event: "replaced", version });
  });

  test("is told to nobody who is not signed in", async () => {
    const status = async (path: string, as: string) =>
      (await fetch(address + path, { headers: { as } })).status;
    for (const path of [`/jobs/${job}/live`, "/no-diagram/1/live"]) {
      expect(await status(path, "stranger")).toBe(401);
      expect(await status(path, "nobody")).toBe(401);
    }
    expect(await status("/jobs/x/live", "desk")).toBe(404);
  });
});
