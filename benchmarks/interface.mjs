// npm run bench:interface: in the built application, the time from a key to the new suspects by the browser's own
// marks, the tasks that blocked the main thread meanwhile, and the layout of every shipped circuit in its worker.
import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { Worker } from "node:worker_threads";
import { demoServer } from "../scripts/demo-server.mjs";
import { root } from "../scripts/freshness.mjs";

const port = 4396;
const jobs = [4, 5, 6, 7];
const rounds = Number(process.argv[2] ?? 12);
const pauseMilliseconds = Number(process.argv[3] ?? 800);

const at = (sorted, share) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
function spread(samples) {
  const sorted = [...samples].sort((a, b) => a - b);
  const [median, high, worst] = [0.5, 0.95, 1].map((share) => at(sorted, share)?.toFixed(0) ?? "none");
  return `median ${median} ms, 95th percentile ${high} ms, worst ${worst} ms (${sorted.length})`;
}

/** Milliseconds between two keys of a fast typist on a keypad. */
const keyMilliseconds = 120;

/** This machine's speed as the time of a multiply-add, so that results of different days can be compared. */
function pace() {
  const rounds = 3e7;
  let sum = 0;
  const began = performance.now();
  for (let i = 0; i < rounds; i++) sum = sum * 1.0000001 + 1e-9;
  return `${(((performance.now() - began) * 1e6) / rounds).toFixed(2)} ns${sum < 0 ? "!" : ""}`;
}
process.stdout.write(`a multiply and add takes ${pace()} just now\n`);

const aloneMilliseconds = 3000;
const startedMilliseconds = 20_000;

/** How long this process is held up while Airway is idle, which a key may take longer by. */
function heldUp() {
  const end = performance.now() + aloneMilliseconds;
  let [last, longest] = [performance.now(), 0];
  while (last < end) {
    const now = performance.now();
    longest = Math.max(longest, now - last);
    last = now;
  }
  return `alone, the machine held a process up for at most ${longest.toFixed(1)} ms in ${aloneMilliseconds / 1000} s\n`;
}
process.stdout.write(heldUp());

/** Time of writing 8 kB to disk, which every reading waits for. */
function diskAlone() {
  const folder = mkdtempSync(join(tmpdir(), "airway-disk-"));
  const file = openSync(join(folder, "written"), "w");
  const page = Buffer.alloc(8192, 1);
  const taken = Array.from({ length: 200 }, () => {
    writeSync(file, page);
    const began = performance.now();
    fsyncSync(file);
    const took = performance.now() - began;
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 20);
    return took;
  });
  closeSync(file);
  rmSync(folder, { recursive: true });
  return `alone, the disk takes a write in: ${spread(taken)}\n`;
}
process.stdout.write(diskAlone());

/**
 * Processor time other machines took while this one wanted it (steal, proc(5)): milliseconds over all processors since
 * the start, on the pages' clock. None if the system does not report it.
 */
const taken = [];
function watchTaken() {
  if (!existsSync("/proc/stat")) return;
  const [, ...ticks] = readFileSync("/proc/stat", "utf8").split("\n", 1)[0].trim().split(/\s+/);
  taken.push({ at: Date.now(), milliseconds: 10 * Number(ticks[7] ?? 0) });
}
setInterval(watchTaken, 20).unref();
function takenBetween(from, to) {
  const before = taken.findLast(({ at }) => at <= from) ?? taken[0];
  const after = taken.find(({ at }) => at >= to) ?? taken.at(-1);
  return (after?.milliseconds ?? 0) - (before?.milliseconds ?? 0);
}

const { browser, address, stop } = await demoServer(port);
// A server runs for weeks; right after its start it works out the board's lines for some seconds.
await wait(startedMilliseconds);

/** Enters the suggested test by keys, then deletes it, and waits for the page after each. */
async function play(page) {
  const measures = () =>
    page.evaluate(() => performance.getEntriesByName("airway:entered-to-suspects").length);
  const settled = async (before) => {
    await page.waitForFunction(
      (count) => performance.getEntriesByName("airway:entered-to-suspects").length > count,
      before,
    );
    // Nobody takes a reading faster.
    await page.waitForTimeout(pauseMilliseconds);
  };
  for (let round = 0; round < rounds; round++) {
    let before = await measures();
    for (let skip = 0; skip < round % 3; skip++) await page.keyboard.press("n");
    if ((await page.locator("[data-choice]").count()) > 0) {
      const light = await page.locator('[data-choice="bright"]').count();
      await page.keyboard.press(light ? ["b", "d", "k"][round % 3] : String(1 + (round % 2)));
    } else {
      // A value in a range the page shows, but not the value it shows.
      const offered = await page
        .locator("[data-about]")
        .evaluateAll((ranges) =>
          ranges.flatMap(({ dataset }) => (dataset.about === "" ? [] : [Number(dataset.about)])),
        );
      const figure = (1.01 * (offered[round % 2] ?? offered[0] ?? 6) + 0.03).toFixed(2);
      for (const digit of figure) {
        await page.keyboard.press(digit);
        await page.waitForTimeout(keyMilliseconds);
      }
      await page.keyboard.press("Enter");
    }
    await settled(before);
    if (round % 4 === 3) {
      for (let back = 0; back < 3; back++) {
        before = await measures();
        await page.keyboard.press("u");
        await settled(before);
      }
    }
  }
}

const all = { entered: [], undisturbed: [], disturbed: [], tasks: [] };
for (const job of jobs) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/jobs/${job}/probe`);
  await page.waitForLoadState("networkidle");
  await page.waitForTimeout(3000);
  await page.evaluate(() => {
    globalThis.airwayTasks = [];
    new globalThis.PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) globalThis.airwayTasks.push(duration);
    }).observe({ type: "longtask" });
  });
  await play(page);
  const keys = await page.evaluate(() =>
    performance.getEntriesByName("airway:entered-to-suspects").map(({ startTime, duration }) => ({
      from: performance.timeOrigin + startTime,
      duration,
    })),
  );
  const entered = keys.map(({ duration }) => duration);
  for (const { from, duration } of keys)
    all[takenBetween(from, from + duration) > 0 ? "disturbed" : "undisturbed"].push(duration);
  const tasks = await page.evaluate(() => globalThis.airwayTasks);
  const asked = await page.evaluate(() =>
    performance
      .getEntriesByType("resource")
      .filter(({ name }) => name.endsWith("/entries"))
      .map(({ duration }) => duration),
  );
  process.stdout.write(
    `job ${job}: a key to new suspects ${spread(entered)}; of it at the server ${spread(asked)}; tasks over 50 ms: ${tasks.length}\n`,
  );
  all.entered.push(...entered);
  all.tasks.push(...tasks);
  await page.close();
}
process.stdout.write(`all jobs: a key to new suspects ${spread(all.entered)}\n`);
process.stdout.write(
  `of them while other machines took none of the processors: ${spread(all.undisturbed)}; while they did: ${spread(all.disturbed)}\n`,
);
process.stdout.write(
  `tasks over 50 ms on the main thread while readings were entered: ${all.tasks.length}${all.tasks.length > 0 ? `, ${spread(all.tasks)}` : ""}\n`,
);

/** The time from a key in one window until another window on the same job shows the reading, or shows it deleted. */
async function windowToWindow(job) {
  const open = async () => {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}/jobs/${job}/probe`);
    await page.waitForLoadState("networkidle");
    return page;
  };
  const [one, other] = [await open(), await open()];
  const standing = () => other.getByTestId("standing").innerText();
  const taken = [];
  for (let i = 0; i < 2 * rounds; i++) {
    // A test with words, so that one key enters it.
    for (let skip = 0; skip < 8 && (await one.locator("[data-choice]").count()) === 0; skip++)
      await one.keyboard.press("n");
    const before = await standing();
    const began = performance.now();
    const first = await one.locator("[data-choice] kbd").first().innerText();
    await one.keyboard.press(i % 2 === 0 ? first.toLowerCase() : "u");
    await other.waitForFunction(
      (shown) => globalThis.document.querySelector('[data-testid="standing"]')?.textContent !== shown,
      before,
      // A window behind another paints nothing, so it has no frames to wait for.
      { polling: 20 },
    );
    taken.push(performance.now() - began);
    await one.waitForTimeout(pauseMilliseconds);
  }
  for (const page of [one, other]) await page.close();
  return taken;
}
process.stdout.write(
  `from one window to another on the same job: ${spread(await windowToWindow(jobs[1]))}\n`,
);
await stop();
process.stdout.write(heldUp());

const worker = new Worker(join(root, "build", "server", "layoutWorker.mjs"));
const folder = join(root, "demo", "circuits");
for (const [id, file] of readdirSync(folder).entries()) {
  const circuit = JSON.parse(readFileSync(join(folder, file), "utf8"));
  const began = performance.now();
  const news = await new Promise((resolve) => {
    worker.once("message", resolve);
    worker.postMessage({ id, circuit });
  });
  const took = performance.now() - began;
  process.stdout.write(
    `layout of ${file.replace(".json", "")}: ${took.toFixed(0)} ms in its worker${id === 0 ? ", the first one" : ""}${news.problem ? ` (${news.problem})` : ""}\n`,
  );
}
await worker.terminate();
