// npm run bench:imports: files from elsewhere are imported while another technician enters readings; how long those
// readings wait.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as pause } from "node:timers/promises";
import type { JobRecord } from "@core/formats/recordFile";
import { closeDatabase, database } from "@db/database.server";
import { loadDemoWorld } from "@db/demoWorld.server";
import { exportRecords } from "@db/repositories/records.server";
import { zipSync } from "fflate";
import sharp from "sharp";
import { recordsCsv } from "../app/records/recordsCsv";
import { quantile, ShopServer } from "./load/shopServer";

const sizes = (process.env.AIRWAY_RECORDS ?? "4000,50000,200000").split(",").map(Number);
/** Milliseconds between two readings: six busy technicians, each on a job of their own. */
const everyMilliseconds = 500;
const technicians = 6;
const folder = mkdtempSync(join(tmpdir(), "airway-imports-"));
process.env.AIRWAY_DATA = folder;
await loadDemoWorld(await database(), join(process.cwd(), "demo"), new Date());
const [own] = await exportRecords();
await closeDatabase();
// Made before the server starts, because making them blocks this process for a while.
const bomb = zipSync({ "tables/jobs.jsonl": new Uint8Array(1_500_000_000) }, { level: 1 });
const line = await sharp({
  create: { width: 1, height: 59_000_000, channels: 3, background: "black" },
  limitInputPixels: false,
})
  .png()
  .toBuffer();
const shop = new ShopServer(folder, 5397);
await shop.start();
// The first reading of each job waits for its circuit to be compiled, as after any start. Not every circuit has a speed 1.
const openJobs: number[] = [];
for (let job = 1; openJobs.length < technicians; job++) {
  if ((await shop.enterReading(job, crypto.randomUUID())).status === 200) openJobs.push(job);
}

/** Enters readings at a regular interval during some work, and reports how long they waited. */
async function meanwhile(title: string, work: () => Promise<string>): Promise<void> {
  const waits: number[] = [];
  const refused: number[] = [];
  let going = true;
  const entering = (async () => {
    while (going) {
      const job = openJobs[waits.length % openJobs.length] ?? 1;
      const { status, milliseconds } = await shop.enterReading(job, crypto.randomUUID());
      waits.push(milliseconds);
      if (status !== 200) refused.push(status);
      await pause(Math.max(0, everyMilliseconds - milliseconds));
    }
  })();
  const began = performance.now();
  const came = await work();
  const seconds = (performance.now() - began) / 1000;
  going = false;
  await entering;
  const at = (share: number): string => quantile(waits, share).toFixed(0);
  process.stdout.write(
    `${title}: ${seconds.toFixed(1)} s, ${came}; ${waits.length} readings waited ${at(0.5)} ms (median), ${at(0.95)} (95th), ${at(1)} (longest), ${refused.length} refused; ${shop.residentMegabytes().toFixed(0)} MB resident\n`,
  );
}

/** Polls the page until the import is over. */
async function untilOver(): Promise<string> {
  for (;;) {
    const page = await (await fetch(shop.address("/records/in"))).text();
    if (page.includes("Saved. ") || page.includes("Checked, nothing")) return "done";
    if (page.includes("Nothing was imported")) return "refused";
    await pause(250);
  }
}

let brought = 0;
const records = (count: number): JobRecord[] =>
  Array.from({ length: count }, () => ({
    ...(own as JobRecord),
    key: `bench-${brought++}`,
    vehicle: `van ${brought % 5000}`,
    words: `case ${brought}`,
  }));

// The readings of one job take longer the more there are; this counts only what the import adds.
await meanwhile("nothing else", async () => {
  await pause(8000);
  return "";
});
for (const count of sizes) {
  const csv = recordsCsv(records(count));
  const megabytes = (csv.length / 1e6).toFixed(1);
  // Making the text blocks this process; a pause lets it notice the connections the server closed meanwhile.
  await pause(500);
  await meanwhile(`${count} records, ${megabytes} MB`, async () => {
    const answer = await shop.post("/records/in/file?store=yes", csv);
    return answer.status === 202 ? untilOver() : String(answer.status);
  });
}
await meanwhile(`a zip of ${(bomb.length / 1e6).toFixed(1)} MB that unpacks to 1.5 GB`, async () =>
  String((await shop.post("/records/keeping/in", new Uint8Array(bomb))).status),
);
await meanwhile(`a picture of 1 by 59,000,000, ${(line.length / 1e6).toFixed(1)} MB`, async () => {
  const form = new FormData();
  form.set("intent", "note");
  form.set("token", crypto.randomUUID());
  form.set("words", "");
  form.set("photo", new Blob([new Uint8Array(line)], { type: "image/png" }), "line.png");
  return String((await shop.post("/jobs/6/notes", form)).status);
});
await shop.stop();
rmSync(folder, { recursive: true, force: true });
