// npm run bench:fleet: whole jobs on simulated vehicles, scored as docs/fleet.md says.
//   --vehicles N   a circuit and draw (default 60)      --seed N      (default 1)
//   --draws N      drawn vehicles in the engine         --only ID     one circuit
//   --vary         every variation of the world as well --wrong       print the jobs that went wrong
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { isMainThread, parentPort, Worker, workerData } from "node:worker_threads";
import { chanceFrom } from "@core/chance/chance";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { calibrationError } from "@core/practice/outcome";
import { usualWorld, variations, type World } from "@core/practice/world";
import { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { buildNetlist } from "@core/solve/buildNetlist";
import { type Played, playVehicle } from "./fleet/play";

interface Task {
  readonly circuit: string;
  readonly draw: "prior" | "even";
  readonly vehicles: number;
  readonly seed: number;
  readonly draws: number | undefined;
  readonly world: World;
  readonly compare: boolean;
}

const folder = join(process.env.AIRWAY_ROOT ?? process.cwd(), "demo", "circuits");
const engines = new Map<string, CompiledCircuit>();

function playTask(task: Task): Played[] {
  const circuit = parseCircuit(JSON.parse(readFileSync(join(folder, `${task.circuit}.json`), "utf8")));
  if (!circuit.ok) throw new Error(task.circuit);
  const exact = buildNetlist(circuit.value);
  const lumped = buildNetlist(circuit.value, { lumpWires: true });
  if (!exact.ok || !lumped.ok) throw new Error(task.circuit);
  const key = `${task.circuit} ${task.draws}`;
  const compiled =
    engines.get(key) ??
    new CompiledCircuit(lumped.value, task.draws === undefined ? {} : { samples: task.draws });
  engines.set(key, compiled);
  const chance = chanceFrom(task.seed);
  return Array.from({ length: task.vehicles }, () =>
    playVehicle(exact.value, compiled, chance, {
      draw: task.draw,
      world: task.world,
      diagnose: { looks: 1 },
      compare: task.compare,
    }),
  );
}

const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);

function report(title: string, played: readonly Played[]): string {
  const share = (test: (one: Played) => boolean): number =>
    played.filter(test).length / Math.max(1, played.length);
  const right = share(({ outcome }) => outcome !== "wrong");
  const minutes = mean(played.map((one) => one.minutes));
  const chart = mean(played.map((one) => one.chart.minutes));
  const claims = played.map(({ p, outcome }) => ({ p, right: outcome === "right" }));
  const error = calibrationError(claims);
  return [
    `${title.padEnd(42)} n ${String(played.length).padStart(5)}`,
    `right ${percent(right).padStart(7)} (apart ${percent(share(({ outcome }) => outcome === "apart"))})`,
    `settled-wrong ${percent(share(({ outcome, state }) => outcome === "wrong" && state === "settled"))}`,
    `ECE ${percent(error)}`,
    `looks ${mean(played.map((one) => one.looks)).toFixed(2)} (bound ${(mean(played.map((one) => one.entropy)) / Math.log2(3)).toFixed(2)})`,
    `min ${minutes.toFixed(1)}`,
    ...(chart > 0
      ? [
          `| chart right ${percent(share((one) => one.chart.right))} looks ${mean(played.map((one) => one.chart.looks)).toFixed(1)} min ${chart.toFixed(1)} → ${percent(minutes / chart)}`,
          `| swap right ${percent(share((one) => one.swapRight))}`,
        ]
      : []),
  ].join("  ");
}

async function playAll(tasks: readonly Task[], workers: number): Promise<Played[]> {
  const queue = [...tasks];
  const all: Played[] = [];
  const file = process.argv[1] ?? "";
  await Promise.all(
    Array.from(
      { length: workers },
      () =>
        new Promise<void>((resolve, reject) => {
          const worker = new Worker(process.env.AIRWAY_BENCH_FILE ?? file, {
            workerData: "fleet",
            env: process.env,
          });
          const next = (): void => {
            const task = queue.shift();
            if (task) worker.postMessage(task);
            else void worker.terminate().then(() => resolve());
          };
          worker.on("message", (played: Played[]) => {
            all.push(...played);
            next();
          });
          worker.on("error", reject);
          next();
        }),
    ),
  );
  return all;
}

/** Kinds of fault that were diagnosed wrongly. */
function wrongByMode(played: readonly Played[]): string {
  const byMode = new Map<string, number>();
  for (const { modes, outcome } of played)
    if (outcome === "wrong") byMode.set(modes, (byMode.get(modes) ?? 0) + 1);
  return `  wrong by mode: ${[...byMode]
    .sort((a, b) => b[1] - a[1])
    .map(([mode, count]) => `${mode} ${count} of ${played.filter(({ modes }) => modes === mode).length}`)
    .join(", ")}`;
}

/** How often verdicts with a given belief were right. */
function calibrationLine(played: readonly Played[]): string {
  const bins = Array.from({ length: 10 }, (_, bin) =>
    played.filter(({ p }) => Math.min(9, Math.floor(p * 10)) === bin),
  );
  return `  claimed → right: ${bins.flatMap((own) => (own.length === 0 ? [] : [`${percent(mean(own.map(({ p }) => p)))} → ${percent(mean(own.map(({ outcome }) => (outcome === "right" ? 1 : 0))))} (${own.length})`])).join(", ")}\n`;
}

async function main(): Promise<void> {
  const { values } = parseArgs({
    args: process.argv.slice(2).filter((arg) => arg !== "fleet"),
    options: {
      vehicles: { type: "string", default: "60" },
      seed: { type: "string", default: "1" },
      draws: { type: "string" },
      only: { type: "string" },
      vary: { type: "boolean", default: false },
      wrong: { type: "boolean", default: false },
      even: { type: "boolean", default: false },
    },
  });
  const ids = readdirSync(folder)
    .map((name) => name.replace(/\.json$/, ""))
    .filter((id) => !values.only || id === values.only);
  const tasksFor = (sample: "prior" | "even", world: World, compare: boolean): Task[] =>
    ids.map((circuit, index) => ({
      circuit,
      draw: sample,
      vehicles: Number(values.vehicles),
      seed: Number(values.seed) * 1000 + index,
      draws: values.draws === undefined ? undefined : Number(values.draws),
      world,
      compare,
    }));
  const say = (line: string): void => void process.stdout.write(`${line}\n`);
  for (const sample of values.even ? (["even"] as const) : (["prior", "even"] as const)) {
    const began = performance.now();
    const played = await playAll(tasksFor(sample, usualWorld, true), 2);
    for (const id of ids)
      say(
        report(
          `${sample}: ${id}`,
          played.filter(({ circuit }) => circuit === id),
        ),
      );
    say(report(`${sample}: all`, played));
    say(`  ${((performance.now() - began) / played.length).toFixed(0)} ms a vehicle\n`);
    const wrong = played.filter(({ outcome }) => outcome === "wrong");
    say(wrongByMode(played));
    say(calibrationLine(played));
    if (values.wrong)
      writeFileSync(
        `${process.env.TMPDIR ?? "/tmp"}/fleet-wrong-${sample}.json`,
        JSON.stringify(wrong, null, 1),
      );
  }
  if (values.vary)
    for (const [name, change] of Object.entries(variations))
      say(report(name, await playAll(tasksFor("prior", { ...usualWorld, ...change }, false), 2)));
}

if (isMainThread) await main();
else if (workerData === "fleet")
  parentPort?.on("message", (task: Task) => parentPort?.postMessage(playTask(task)));
