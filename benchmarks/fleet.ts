// npm run bench:fleet: whole jobs on simulated vehicles, scored as docs/fleet.md says.
//   --vehicles N   a circuit and draw (default 60)      --seed N      (default 1)
//   --draws N      drawn vehicles in the engine         --only ID     one circuit
//   --vary         every variation of the world as well --wrong       print the jobs that went wrong
//   --usual        the world without real hands, stutter, faults that come and go, and faults beyond the catalogue
//   --moved         the three worlds in which all constants move together
//   --no-diagram    told only what can be seen of the vehicle
//   --varied        with it: every vehicle has a circuit of its own, made by rule from a shipped one
//   --prior        draw faults by their prior only      --even        draw every fault mode equally often only
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { isMainThread, parentPort, Worker, workerData } from "node:worker_threads";
import { chanceFrom } from "@core/chance/chance";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { calibrationError } from "@core/practice/outcome";
import { harderWorld, movedWorlds, usualWorld, variations, type World } from "@core/practice/world";
import { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { medianOf } from "@core/signal/currentRecording";
import { buildNetlist } from "@core/solve/buildNetlist";
import { CandidateCache } from "@core/wiring/compiledCandidate";
import { numberedSettings } from "@core/wiring/vehiclePlaces";
import { type PlayedWithout, playWithout } from "./fleet/noDiagram";
import { type Played, playVehicle } from "./fleet/play";
import { variedCircuit } from "./fleet/variedCircuit";

interface Task {
  readonly circuit: string;
  readonly draw: "prior" | "even";
  readonly vehicles: number;
  readonly seed: number;
  readonly draws: number | undefined;
  readonly world: World;
  readonly compare: boolean;
}

interface WithoutTask {
  readonly withoutDiagram: true;
  readonly circuit: string;
  readonly varied: boolean;
  readonly vehicles: number;
  readonly seed: number;
  readonly world: World;
}

const folder = join(process.env.AIRWAY_ROOT ?? process.cwd(), "demo", "circuits");
const engines = new Map<string, CompiledCircuit>();

const candidates = new CandidateCache();

/**
 * Plays vehicles of one shipped circuit, or of variations of it, without its diagram; none of one with a second switch,
 * which has no number.
 */
function playTaskWithout({ circuit: id, varied, vehicles, seed, world }: WithoutTask): PlayedWithout[] {
  const circuit = parseCircuit(JSON.parse(readFileSync(join(folder, `${id}.json`), "utf8")));
  if (!circuit.ok) throw new Error(id);
  if (circuit.value.parts.some((part) => part.kind === "selector" && part.settings)) return [];
  const base = numberedSettings(circuit.value);
  const chance = chanceFrom(seed);
  const shipped = varied ? null : buildNetlist(base);
  return Array.from({ length: vehicles }, () => {
    const netlist = shipped ?? buildNetlist(variedCircuit(base, chance));
    if (!netlist.ok) throw new Error(id);
    return playWithout(netlist.value, candidates, chance, world);
  });
}

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

/**
 * The 95 % interval of a share, in per cent, by Wilson's formula (E. B. Wilson, "Probable inference, the law of
 * succession, and statistical inference", Journal of the American Statistical Association 22, 1927).
 */
function interval(hits: number, of: number): string {
  if (of === 0) return "";
  const z = 1.96;
  const share = hits / of;
  const middle = share + (z * z) / (2 * of);
  const half = z * Math.sqrt((share * (1 - share)) / of + (z * z) / (4 * of * of));
  const scale = 100 / (1 + (z * z) / of);
  return `${(scale * (middle - half)).toFixed(1)} to ${(scale * (middle + half)).toFixed(1)}`;
}

const unlistedKind = "outside the catalogue";

/** Right, confirmed and wrong, and minutes of each kind of fault; outside the catalogue, right is "not confirmed". */
function kindLines(played: readonly Played[]): string {
  const kinds = [...new Set(played.map(({ kind }) => kind))].sort();
  return kinds
    .map((kind) => {
      const own = played.filter((one) => one.kind === kind);
      const settled = own.filter(({ state }) => state === "settled");
      const hits =
        kind === unlistedKind
          ? own.length - settled.length
          : own.filter(({ outcome }) => outcome !== "wrong").length;
      const wrong = settled.filter(({ outcome }) => outcome === "wrong").length;
      const sound = settled.filter(({ failed }) => !failed).length;
      return `  ${kind.padEnd(24)} n ${String(own.length).padStart(4)}  right ${percent(hits / own.length).padStart(7)} (${interval(hits, own.length)})  confirmed and wrong ${percent(wrong / own.length)}${kind === unlistedKind ? ` (a part that is sound ${percent(sound / own.length)})` : ""}  tests ${mean(own.map(({ looks }) => looks)).toFixed(2)}`;
    })
    .join("\n");
}

/** Tests at points no probe can touch, as a share of all tests. */
function reachLine(played: readonly Played[]): string {
  const all = played.reduce((sum, { looks }) => sum + looks, 0);
  const beyond = played.reduce((sum, { unreachable }) => sum + unreachable, 0);
  return `  tests at unreachable points: ${percent(beyond / Math.max(1, all))} of ${all}`;
}

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
    `right ${percent(right).padStart(7)} [${interval(Math.round(right * played.length), played.length)}] (apart ${percent(share(({ outcome }) => outcome === "apart"))})`,
    `settled-wrong ${percent(share(({ outcome, state }) => outcome === "wrong" && state === "settled"))}`,
    `ECE ${percent(error)}`,
    `looks ${mean(played.map((one) => one.looks)).toFixed(2)} (bound ${(mean(played.map((one) => one.entropy)) / Math.log2(3)).toFixed(2)})`,
    `min ${minutes.toFixed(1)}`,
    `visits median ${medianOf(played.map((one) => one.visits))}, mean ${mean(played.map((one) => one.visits)).toFixed(2)}`,
    ...(chart > 0
      ? [
          `| chart right ${percent(share((one) => one.chart.right))} looks ${mean(played.map((one) => one.chart.looks)).toFixed(1)} min ${chart.toFixed(1)} → ${percent(minutes / chart)}`,
          `| swap right ${percent(share((one) => one.swapRight))}`,
        ]
      : []),
  ].join("  ");
}

async function playAll<T extends Task | WithoutTask, P>(tasks: readonly T[], workers: number): Promise<P[]> {
  const queue = [...tasks];
  const all: P[] = [];
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
          worker.on("message", (played: P[]) => {
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

/** The report of jobs without a diagram: one line a circuit, then all. */
function reportWithout(played: readonly PlayedWithout[], say: (line: string) => void): void {
  const within = played.filter(({ kind }) => kind !== unlistedKind);
  const line = (title: string, own: readonly PlayedWithout[]): string => {
    const right = own.filter((one) => one.right).length;
    const settled = own.filter(({ state }) => state === "settled");
    const wrong = settled.filter((one) => !one.right).length;
    return [
      `${title.padEnd(42)} n ${String(own.length).padStart(5)}`,
      `right ${percent(right / Math.max(1, own.length))} [${interval(right, own.length)}]`,
      `confirmed ${percent(settled.length / Math.max(1, own.length))}`,
      `confirmed and wrong ${percent(wrong / Math.max(1, own.length))}`,
      `ECE ${percent(calibrationError(own.map(({ p, right: is }) => ({ p, right: is }))))}`,
      `tests ${mean(own.map(({ looks }) => looks)).toFixed(2)}`,
      `min ${mean(own.map(({ minutes }) => minutes)).toFixed(1)}`,
      `${mean(own.map(({ milliseconds }) => milliseconds)).toFixed(0)} ms a diagnosis`,
    ].join("  ");
  };
  for (const id of [...new Set(within.map(({ circuit }) => circuit))])
    say(
      line(
        `no diagram: ${id}`,
        within.filter(({ circuit }) => circuit === id),
      ),
    );
  say(line("no diagram: all within the catalogue", within));
  say(calibrationLine(within));
  const beyond = played.filter(({ kind }) => kind === unlistedKind);
  say(
    `  outside the catalogue: ${beyond.length}, confirmed ${beyond.filter(({ state }) => state === "settled").length}`,
  );
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
function calibrationLine(played: readonly { readonly p: number; readonly right: boolean }[]): string {
  const bins = Array.from({ length: 10 }, (_, bin) =>
    played.filter(({ p }) => Math.min(9, Math.floor(p * 10)) === bin),
  );
  return `  claimed → right: ${bins.flatMap((own) => (own.length === 0 ? [] : [`${percent(mean(own.map(({ p }) => p)))} → ${percent(mean(own.map(({ right }) => (right ? 1 : 0))))} (${own.length})`])).join(", ")}\n`;
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
      prior: { type: "boolean", default: false },
      usual: { type: "boolean", default: false },
      moved: { type: "boolean", default: false },
      "no-diagram": { type: "boolean", default: false },
      varied: { type: "boolean", default: false },
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
  if (values.moved) {
    for (const [name, moved] of Object.entries(movedWorlds)) {
      const every = await playAll<Task, Played>(tasksFor("prior", moved, false), 2);
      say(
        report(
          name,
          every.filter(({ kind }) => kind !== unlistedKind),
        ),
      );
    }
    return;
  }
  const world = values.usual ? usualWorld : harderWorld;
  if (values["no-diagram"]) {
    const played = await playAll<WithoutTask, PlayedWithout>(
      ids.map((circuit, index) => ({
        withoutDiagram: true,
        circuit,
        varied: values.varied,
        vehicles: Number(values.vehicles),
        seed: Number(values.seed) * 1000 + index,
        world,
      })),
      2,
    );
    reportWithout(played, say);
    if (values.wrong)
      writeFileSync(
        `${process.env.TMPDIR ?? "/tmp"}/fleet-wrong-no-diagram.json`,
        JSON.stringify(
          played.filter(({ right }) => !right),
          null,
          1,
        ),
      );
    return;
  }
  const samples = values.even
    ? (["even"] as const)
    : values.prior
      ? (["prior"] as const)
      : (["prior", "even"] as const);
  for (const sample of samples) {
    const began = performance.now();
    const every = await playAll<Task, Played>(tasksFor(sample, world, true), 2);
    const played = every.filter(({ kind }) => kind !== unlistedKind);
    for (const id of ids)
      say(
        report(
          `${sample}: ${id}`,
          played.filter(({ circuit }) => circuit === id),
        ),
      );
    say(report(`${sample}: all within the catalogue or close to it`, played));
    say(`  ${((performance.now() - began) / every.length).toFixed(0)} ms a vehicle`);
    say(reachLine(every));
    say(kindLines(every));
    const wrong = every.filter(({ outcome, kind, state }) =>
      kind === unlistedKind ? state === "settled" : outcome === "wrong",
    );
    say(wrongByMode(played));
    say(calibrationLine(played.map(({ p, outcome }) => ({ p, right: outcome === "right" }))));
    if (values.wrong)
      writeFileSync(
        `${process.env.TMPDIR ?? "/tmp"}/fleet-wrong-${sample}.json`,
        JSON.stringify(wrong, null, 1),
      );
  }
  if (values.vary)
    for (const [name, change] of Object.entries(variations))
      say(report(name, await playAll<Task, Played>(tasksFor("prior", { ...world, ...change }, false), 2)));
}

if (isMainThread) await main();
else if (workerData === "fleet")
  parentPort?.on("message", (task: Task | WithoutTask) =>
    parentPort?.postMessage("withoutDiagram" in task ? playTaskWithout(task) : playTask(task)),
  );
