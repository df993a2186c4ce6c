// npm run bench: the time of an operating point, a compile and a reading on this machine.
import { execFileSync } from "node:child_process";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { isMainThread, parentPort, Worker, workerData } from "node:worker_threads";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { diagnose } from "@core/diagnose/diagnose";
import type { Reading } from "@core/predict/reading";
import { CompiledCircuit, defaultSamples } from "@core/predict/tables/compiledCircuit";
import { buildNetlist } from "@core/solve/buildNetlist";
import type { Netlist } from "@core/solve/netlist/netlist";
import { setupState } from "@core/solve/netlist/setup";
import { nominalValues } from "@core/solve/netlist/values";
import { PointSolver } from "@core/solve/pointSolver";

const folder = join(process.env.AIRWAY_ROOT ?? process.cwd(), "demo", "circuits");

function netlists(): Netlist[] {
  return readdirSync(folder).map((file) => {
    const circuit = parseCircuit(JSON.parse(readFileSync(join(folder, file), "utf8")));
    const netlist = circuit.ok ? buildNetlist(circuit.value, { lumpWires: true }) : circuit;
    if (!netlist.ok) throw new Error(`${file} cannot be solved`);
    return netlist.value;
  });
}

const at = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;

function spread(samples: readonly number[], unit: string): string {
  const sorted = [...samples].sort((a, b) => a - b);
  const figure = (value: number): string => value.toFixed(value < 10 ? 2 : 1);
  return `median ${figure(at(sorted, 0.5))} ${unit}, 95th percentile ${figure(at(sorted, 0.95))} ${unit}, worst ${figure(at(sorted, 1))} ${unit}`;
}

function pointMicroseconds(netlist: Netlist): number[] {
  const solver = new PointSolver(netlist);
  const values = nominalValues(netlist);
  const states = netlist.circuit.settings.map((setting) => setupState(netlist, { key: "run", setting }));
  const batch = 200;
  return Array.from({ length: 100 }, (_, round) => {
    const state = states[round % states.length];
    if (!state) return Number.NaN;
    const began = performance.now();
    for (let i = 0; i < batch; i++) solver.solve(values, state, []);
    return ((performance.now() - began) * 1000) / batch;
  });
}

function compileMilliseconds(netlist: Netlist): number[] {
  return Array.from({ length: 5 }, () => {
    const began = performance.now();
    new CompiledCircuit(netlist).prepare();
    return performance.now() - began;
  });
}

/**
 * A job played from its complaint: each time, the first suggested test is answered and the tests are weighed again.
 * `fresh` are readings in a set-up used for the first time (something unplugged or bridged).
 */
function readingMilliseconds(netlist: Netlist): { ready: number[]; fresh: number[] } {
  const compiled = new CompiledCircuit(netlist);
  compiled.prepare();
  const ready: number[] = [];
  const complaint = (): Reading[] =>
    netlist.circuit.settings.slice(1).map((setting, i, all) => ({
      test: "airflow",
      heard: true,
      key: "run",
      setting,
      seen: i === all.length - 1 ? "normal" : "none",
    }));
  const timed = (readings: Reading[], into: number[]) => {
    const began = performance.now();
    const result = diagnose(compiled, readings);
    into.push(performance.now() - began);
    return result.ok ? result.value.next[0] : undefined;
  };
  const play = (): void => {
    const readings = complaint();
    for (let test = 0; test < 6; test++) {
      const next = timed(readings, ready);
      if (!next) break;
      readings.push(plainAnswer(next.test));
    }
  };
  for (let round = 0; round < 4; round++) play();
  ready.length = 0;
  for (let round = 0; round < 15; round++) play();
  const fresh: number[] = [];
  const setting = netlist.circuit.settings.at(-1) ?? "off";
  for (const { id, pins } of netlist.circuit.connectors) {
    const [pin = ""] = Object.keys(pins);
    const volts: Reading = {
      test: "volts",
      red: `${id}:${pin}`,
      black: `${netlist.battery.id}.-`,
      key: "run",
      engine: true,
      setting,
      unplugged: [id],
      volts: 12.1,
    };
    timed([...complaint(), volts], fresh);
  }
  return { ready, fresh };
}

function plainAnswer(test: { readonly test: Reading["test"] }): Reading {
  const results: Partial<Record<Reading["test"], string>> = {
    airflow: "normal",
    light: "bright",
    look: "clean",
    spin: "free",
    listen: "quiet",
    smell: "none",
    history: "no",
    tap: "nothing",
    lampload: "bright",
    swap: "same",
    ripple: "even",
  };
  if (test.test === "volts") return { ...test, volts: 12 } as Reading;
  if (test.test === "amps") return { ...test, amps: 12 } as Reading;
  if (test.test === "ohms") return { ...test, ohms: null } as Reading;
  return { ...test, seen: results[test.test] } as Reading;
}

/** Compiles in a worker: milliseconds, the reported progress, and the time to stop. */
async function compileInWorker(id: string): Promise<{ milliseconds: number; told: number; stopped: number }> {
  const file = process.env.AIRWAY_BENCH_FILE ?? process.argv[1] ?? "";
  const run = (cancel: boolean) =>
    new Promise<{ milliseconds: number; told: number; stopped: number }>((resolve, reject) => {
      const flag = new Int32Array(new SharedArrayBuffer(4));
      const worker = new Worker(file, { workerData: { compile: id, flag } });
      let told = 0;
      let asked = 0;
      worker.on("message", (message: { share?: number; milliseconds?: number }) => {
        if (message.share !== undefined) {
          told += 1;
          if (!cancel || asked > 0) return;
          asked = performance.now();
          Atomics.store(flag, 0, 1);
        } else {
          const stopped = cancel ? performance.now() - asked : 0;
          void worker
            .terminate()
            .then(() => resolve({ milliseconds: message.milliseconds ?? 0, told, stopped }));
        }
      });
      worker.on("error", reject);
    });
  const whole = await run(false);
  const cut = await run(true);
  return { ...whole, stopped: cut.stopped };
}

function compileHere({ compile, flag }: { compile: string; flag: Int32Array }): void {
  const netlist = netlists().find(({ circuit }) => circuit.id === compile);
  if (!netlist) throw new Error(compile);
  // One cold run to warm the code up, as in a server that has been running.
  new CompiledCircuit(netlist, { samples: 2 }).prepare();
  const began = performance.now();
  new CompiledCircuit(netlist).prepare((share) => {
    parentPort?.postMessage({ share });
    return Atomics.load(flag, 0) === 0;
  });
  parentPort?.postMessage({ milliseconds: performance.now() - began });
}

/** Peak megabytes of a process that compiles only this circuit, every set-up, and plays a job on it. */
function peakMegabytes(id: string): number {
  const file = process.env.AIRWAY_BENCH_FILE ?? process.argv[1] ?? "";
  const env = { ...process.env, AIRWAY_BENCH_MEMORY: id };
  return Number(execFileSync(process.execPath, [file], { env, encoding: "utf8" }));
}

function playAlone(id: string): void {
  const netlist = netlists().find(({ circuit }) => circuit.id === id);
  if (!netlist) throw new Error(id);
  readingMilliseconds(netlist);
  process.stdout.write((process.resourceUsage().maxRSS / 1024).toFixed(0));
}

/** Nanoseconds of a multiply-add just now, because this machine's speed drifts, and the results with it. */
function pace(): string {
  const values = new Float64Array(100_000).fill(1.1);
  let sum = 0;
  const began = performance.now();
  for (let round = 0; round < 300; round++)
    for (let i = 0; i < values.length; i++) sum += 1.1 * (values[i] as number);
  const each = ((performance.now() - began) * 1e6) / (300 * values.length);
  return `a multiply and add takes ${each.toFixed(2)} ns just now${sum > 0 ? "" : "?"}`;
}

async function main(): Promise<void> {
  const say = (line: string): void => void process.stdout.write(`${line}\n`);
  say(`Node ${process.version}, ${defaultSamples} drawn vehicles; ${pace()}`);
  for (const netlist of netlists()) {
    const { id } = netlist.circuit;
    const { variants, rows } = new CompiledCircuit(netlist);
    const worker = await compileInWorker(id);
    say(`\n${id}: ${netlist.nodeNames.length} nodes, ${variants.length} faults by size, ${rows.length} rows`);
    say(`  operating point      ${spread(pointMicroseconds(netlist), "µs")}`);
    say(`  compile, all set-ups ${spread(compileMilliseconds(netlist), "ms")}`);
    say(
      `  in a worker          ${worker.milliseconds.toFixed(0)} ms, ${worker.told} steps of progress; stopped ${worker.stopped.toFixed(0)} ms after being asked`,
    );
    const { ready, fresh } = readingMilliseconds(netlist);
    say(`  reading to next look ${spread(ready, "ms")}`);
    say(`    set-up not compiled ${spread(fresh, "ms")}`);
    say(`  peak memory          ${peakMegabytes(id)} MB, a process of its own, Node included`);
    say(`  ${pace()}`);
  }
  say(
    `\npeak memory ${(process.resourceUsage().maxRSS / 1024).toFixed(0)} MB for all ${netlists().length} circuits one after another`,
  );
}

const alone = process.env.AIRWAY_BENCH_MEMORY;
if (isMainThread && alone) playAlone(alone);
else if (isMainThread) await main();
else compileHere(workerData as { compile: string; flag: Int32Array });
