// npm run bench:board: the board of a shop with 200 open jobs on 60 circuits: after a start, at rest, and while six technicians work.
import { rmSync } from "node:fs";
import { setTimeout as pause } from "node:timers/promises";
import { chanceFrom } from "@core/chance/chance";
import { manyJobs } from "./load/manyJobs";
import { quantile, ShopServer } from "./load/shopServer";

const technicians = 6;
/** Seconds between two actions of one technician: a reading is entered and a page opened. */
const secondsBetween = 20;
const minutesOfWork = Number(process.env.AIRWAY_BOARD_MINUTES ?? 5);
const { folder, jobs, speeds } = await manyJobs(200, 60);
const shop = new ShopServer(folder, 5396);
const chance = chanceFrom(5);

function say(title: string, waits: readonly number[]): void {
  const at = (part: number): string => quantile(waits, part).toFixed(0);
  process.stdout.write(
    `${title}: ${waits.length} times, median ${at(0.5)} ms, 95th percentile ${at(0.95)} ms, longest ${at(1)} ms; ${shop.residentMegabytes().toFixed(0)} MB resident\n`,
  );
}

/**
 * Opens a page; resolves with its text and the milliseconds until all of it had arrived.
 * @throws unless it is answered with 200
 */
async function open(path: string): Promise<{ milliseconds: number; text: string }> {
  const began = performance.now();
  const answer = await fetch(shop.address(path));
  const text = await answer.text();
  if (answer.status !== 200) throw new Error(`${path} was answered ${answer.status}`);
  return { milliseconds: performance.now() - began, text };
}

async function boards(times: number): Promise<number[]> {
  const waits: number[] = [];
  for (let i = 0; i < times; i++) waits.push((await open("/")).milliseconds);
  return waits;
}

async function enter(job: number): Promise<number> {
  const { status, milliseconds } = await shop.enterReading(job, crypto.randomUUID(), speeds.get(job));
  if (status !== 200) throw new Error(`a reading was answered ${status}`);
  return milliseconds;
}

const started = await shop.start();
process.stdout.write(`ready after ${started.toFixed(1)} s\n`);
say("first reading after a start", [await enter(jobs[0] ?? 0)]);
say("board while its lines are worked out for the first time", await boards(50));
const began = performance.now();
while ((await open("/")).text.includes("Working out the next test")) await pause(2000);
process.stdout.write(
  `all lines are there after another ${((performance.now() - began) / 1000).toFixed(0)} s\n`,
);
say("board at rest", await boards(200));

const until = Date.now() + minutesOfWork * 60_000;
const readings: number[] = [];
const pages: number[] = [];
const busy: number[] = [];
async function work(): Promise<void> {
  while (Date.now() < until) {
    const job = jobs[Math.floor(chance.uniform() * jobs.length)] ?? 0;
    await pause(secondsBetween * 500 * (0.5 + chance.uniform()));
    pages.push((await open(`/jobs/${job}/probe`)).milliseconds);
    await pause(secondsBetween * 500 * (0.5 + chance.uniform()));
    readings.push(await enter(job));
  }
}
async function watch(): Promise<void> {
  while (Date.now() < until) {
    busy.push((await open("/")).milliseconds);
    await pause(500);
  }
}
await Promise.all([watch(), ...Array.from({ length: technicians }, () => work())]);
say("board while six technicians work", busy);
say("their readings", readings);
say("their probe pages", pages);
await shop.stop();
rmSync(folder, { recursive: true, force: true });
