// npm run bench:crowd: 30 devices watch five jobs, and ten readings a second come in. Every reading must be stored once,
// acknowledged soon, and shown to the others on its job soon; memory must not grow. The five jobs are other ones every
// minute, because nobody takes a thousand readings on one vehicle.
import { rmSync } from "node:fs";
import { type ClientRequest, request } from "node:http";
import { setTimeout as pause } from "node:timers/promises";
import { closeDatabase } from "@db/database.server";
import { databaseFile } from "@db/databaseFile.server";
import { PlainSqlite } from "@db/keeping/plainSqlite.server";
import { manyJobs } from "./load/manyJobs";
import { quantile, ShopServer } from "./load/shopServer";

const minutes = Number(process.env.AIRWAY_CROWD_MINUTES ?? 10);
const devices = 30;
const jobsAtOnce = 5;
const entriesEachSecond = Number(process.env.AIRWAY_CROWD_RATE ?? 10);
const { folder, jobs, speeds } = await manyJobs(jobsAtOnce * Math.ceil(minutes), jobsAtOnce);
await closeDatabase();
const shop = new ShopServer(folder, 5397);
await shop.start();

/** Milliseconds until an entry was acknowledged, and until a device on its job had a page that shows it. */
const waits = { acknowledged: [] as number[], shown: [] as number[] };
const sentAt = new Map<string, number>();
const failures = new Map<string, number>();
const fail = (what: string): void => void failures.set(what, (failures.get(what) ?? 0) + 1);
const uuid = /[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}/g;
const pageOf = (job: number): string =>
  shop.address(`/jobs/${job}/probe.data?${new URLSearchParams({ _routes: "routes/job,routes/probe" })}`);

/** A device whose page shows a job: it takes the pages that are pushed, and loads others as the browser does. */
class Device {
  private readonly seen = new Set<string>();
  private readonly stream: ClientRequest;

  constructor(private readonly job: number) {
    this.stream = request(shop.address(`/jobs/${job}/live?page=probe`), { agent: false }, (response) => {
      let text = "";
      response.setEncoding("utf8");
      response.on("data", (chunk: string) => {
        text += chunk;
        for (let end = text.indexOf("\n\n"); end >= 0; end = text.indexOf("\n\n")) {
          this.take(text.slice(0, end));
          text = text.slice(end + 2);
        }
      });
    });
    this.stream.on("error", () => undefined);
    this.stream.end();
  }

  leave(): void {
    this.stream.destroy();
  }

  private take(event: string): void {
    if (!event.includes("event:change")) return;
    if (event.includes('"page":')) this.show(event);
    else void this.load();
  }

  private async load(): Promise<void> {
    const answer = await fetch(pageOf(this.job));
    if (answer.status !== 200) fail(`page ${answer.status}`);
    this.show(await answer.text());
  }

  private show(page: string): void {
    for (const id of page.match(uuid) ?? []) {
      const sent = sentAt.get(id);
      if (sent === undefined || this.seen.has(id)) continue;
      this.seen.add(id);
      waits.shown.push(performance.now() - sent);
    }
  }
}

async function enter(job: number): Promise<void> {
  const token = crypto.randomUUID();
  sentAt.set(token, performance.now());
  const { status, milliseconds } = await shop.enterReading(job, token, speeds.get(job));
  if (status === 200) waits.acknowledged.push(milliseconds);
  else fail(`entry ${status}`);
}

const megabytes: number[] = [];
/** 95th percentiles of each minute: acknowledged, shown. */
const byMinute: string[] = [];
const pending: Promise<void>[] = [];
for (let minute = 0; minute < minutes; minute++) {
  const own = jobs.slice(minute * jobsAtOnce, (minute + 1) * jobsAtOnce);
  // The technicians open their next jobs.
  for (const job of own) await (await fetch(shop.address(`/jobs/${job}/probe`))).text();
  const here = Array.from({ length: devices }, (_, at) => new Device(own[at % own.length] as number));
  await pause(1000);
  const began = performance.now();
  const before = [waits.acknowledged.length, waits.shown.length] as const;
  for (let made = 0; made < entriesEachSecond * 60 * Math.min(1, minutes); made++) {
    pending.push(enter(own[made % own.length] as number));
    await pause(Math.max(0, began + ((made + 1) * 1000) / entriesEachSecond - performance.now()));
  }
  await Promise.all(pending.splice(0));
  await pause(1000);
  const p95 = (all: readonly number[], from: number) => quantile(all.slice(from), 0.95).toFixed(0);
  byMinute.push(`${p95(waits.acknowledged, before[0])}/${p95(waits.shown, before[1])}`);
  megabytes.push(shop.residentMegabytes());
  for (const device of here) device.leave();
}
await shop.stop();

const stored = await PlainSqlite.use(databaseFile(folder), (own) => own.all("SELECT id FROM readings"));
const kept = new Set(stored.map(({ id }) => String(id)));
const lost = [...sentAt.keys()].filter((id) => !kept.has(id)).length;
rmSync(folder, { recursive: true, force: true });
for (const [name, all] of Object.entries(waits))
  process.stdout.write(
    `${name}: ${all.length} times, median ${quantile(all, 0.5).toFixed(0)} ms, p95 ${quantile(all, 0.95).toFixed(0)} ms, most ${Math.max(...all).toFixed(0)} ms\n`,
  );
const sixEach = (sentAt.size * devices) / jobsAtOnce;
process.stdout.write(
  `${sentAt.size} readings, ${lost} not stored; shown ${waits.shown.length} of ${sixEach} times; failures: ${JSON.stringify(Object.fromEntries(failures))}\n`,
);
process.stdout.write(`p95 minute by minute, acknowledged/shown: ${byMinute.join(", ")} ms\n`);
process.stdout.write(`memory minute by minute: ${megabytes.map((own) => own.toFixed(0)).join(", ")} MB\n`);
process.exitCode = lost === 0 && failures.size === 0 ? 0 : 1;
