// npm run bench:recording: ten million samples read in the built application's worker: the time, the peak memory of
// the browser's page process, and the tasks that blocked the main thread meanwhile.
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import wavefile from "wavefile";
import { demoServer } from "../scripts/demo-server.mjs";

const samples = Number(process.argv[2] ?? 10_000_000);
const rateHz = 20_000;
const folder = mkdtempSync(join(tmpdir(), "airway-trace-"));

const bars = 12;

/** Half-sine ripples, drifting by 1 %, with noise and some lower ones in each half turn: 16-bit steps of full scale. */
function sample(i, bad) {
  const humps = (580 * (i - 10_000 * Math.cos(i / 1e6))) / rateHz;
  const height = bad.includes(((Math.floor(humps) % (bars / 2)) + bars / 2) % (bars / 2)) ? -0.05 : 0.02;
  return 0.3 + height * Math.abs(Math.sin(Math.PI * humps)) + 0.0006 * (Math.random() - 0.5);
}

function wav(name, bad) {
  const file = new wavefile.WaveFile();
  const figures = Int16Array.from({ length: samples }, (_, i) => Math.round(32_767 * sample(i, bad)));
  file.fromScratch(1, rateHz, "16", figures);
  const path = join(folder, `${name}.wav`);
  writeFileSync(path, file.toBuffer());
  return path;
}

function csv() {
  const path = join(folder, "sound.csv");
  const parts = ["time (s),clamp (V)\n"];
  for (let from = 0; from < samples; from += 100_000) {
    const lines = [];
    for (let i = from; i < Math.min(samples, from + 100_000); i++)
      lines.push(`${(i / rateHz).toFixed(5)},${sample(i, []).toFixed(5)}`);
    parts.push(`${lines.join("\n")}\n`);
  }
  writeFileSync(path, parts.join(""));
  return path;
}

/** Resident megabytes of the largest process that renders pages, by the system's own count. */
function pageMegabytes() {
  let most = 0;
  for (const pid of readdirSync("/proc").filter((name) => /^\d+$/.test(name))) {
    try {
      if (!readFileSync(`/proc/${pid}/cmdline`, "utf8").includes("--type=renderer")) continue;
      const status = readFileSync(`/proc/${pid}/status`, "utf8");
      most = Math.max(most, Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024);
    } catch {
      // The process ended meanwhile.
    }
  }
  return most;
}

const { browser, address, stop } = await demoServer(4394);
for (const path of [wav("sound", []), wav("two bad bars", [1, 2]), csv()]) {
  // A separate page, so that memory still held by the previous one does not count.
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/jobs/6/motor?view=humps`, { waitUntil: "networkidle" });
  await page.getByRole("textbox", { name: "bars" }).fill(String(bars));
  const idle = pageMegabytes();
  await page.getByLabel("A CSV or WAV file of the motor's current").setInputFiles(path);
  await page.getByTestId("found").waitFor();
  await page.evaluate(() => {
    window.held = [];
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) window.held.push(Math.round(duration));
    }).observe({ type: "longtask" });
    window.frames = 0;
    const count = () => {
      window.frames += 1;
      requestAnimationFrame(count);
    };
    count();
  });
  let most = 0;
  const watch = setInterval(() => {
    most = Math.max(most, pageMegabytes());
  }, 50);
  const began = Date.now();
  await page.getByRole("button", { name: "Read it" }).click();
  await page.getByTestId("found").waitFor({ state: "detached", timeout: 120_000 });
  const took = Date.now() - began;
  clearInterval(watch);
  const { held, frames, analysed } = await page.evaluate(() => ({
    held: window.held,
    frames: window.frames,
    analysed: performance.getEntriesByName("airway:analysed").at(-1)?.duration ?? Number.NaN,
  }));
  process.stdout.write(
    `${basename(path)}, ${samples} samples: analysed in ${analysed.toFixed(0)} ms in the worker; read, analysed and stored in ${took} ms; page process at most ${most.toFixed(0)} MB (${idle.toFixed(0)} before); ${frames} frames drawn meanwhile, tasks over 50 ms: ${held.join(", ") || "none"}\n`,
  );
  await page.close();
  await wait(1500);
}
await stop();
