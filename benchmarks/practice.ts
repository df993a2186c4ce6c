// npm run bench:practice [-- COUNT]: practice cases over every shipped circuit and level, ten thousand by default: how
// many attempts make one, why the others fail, how far each level's cases are from giving themselves away, and whether
// they are solved a third time with other noise.
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { isMainThread, parentPort, Worker, workerData } from "node:worker_threads";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { outcomeOf } from "@core/practice/outcome";
import {
  faultOf,
  type PracticeCase,
  type PracticeCircuit,
  type PracticeLevel,
  playedOn,
  practiceCircuit,
  practiceLevels,
  tryCase,
} from "@core/practice/practiceCase";
import { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { buildNetlist } from "@core/solve/buildNetlist";

const folder = join(process.env.AIRWAY_ROOT ?? process.cwd(), "demo", "circuits");

interface Task {
  readonly file: string;
  readonly place: number;
  readonly each: number;
}

/** One case, or one failed attempt. */
interface Line {
  readonly level: PracticeLevel;
  readonly rejected?: string;
  readonly atFirst?: number;
  readonly looks?: number;
  readonly mode?: string;
  readonly again?: boolean;
}

/** Played a third time with other noise on the same vehicle, to show that the generator was not just lucky. */
function solvedAgain(on: PracticeCircuit, own: PracticeCase): boolean {
  const fault = faultOf(on.exact, own);
  if (!fault.ok) throw new Error("a case names what its circuit does not have");
  return outcomeOf(playedOn(on, own, fault.value, 3).diagnosis, fault.value) !== "wrong";
}

function run({ file, place, each }: Task): Line[] {
  const parsed = parseCircuit(JSON.parse(readFileSync(join(folder, file), "utf8")));
  if (!parsed.ok) throw new Error(file);
  const lumped = buildNetlist(parsed.value, { lumpWires: true });
  if (!lumped.ok) throw new Error(file);
  const on = practiceCircuit(new CompiledCircuit(lumped.value));
  const lines: Line[] = [];
  for (const level of practiceLevels)
    for (let seed = 1, made = 0; made < each; seed++) {
      const own = tryCase(on, level, null, 1_000_003 * (place + 1) + seed);
      if (typeof own === "string") {
        lines.push({ level, rejected: own });
        continue;
      }
      made += 1;
      lines.push({
        level,
        atFirst: own.atFirst,
        looks: own.looks,
        mode: own.case.fault.map(({ mode }) => mode).join("+"),
        again: solvedAgain(on, own.case),
      });
    }
  return lines;
}

function report(level: PracticeLevel, lines: readonly Line[]): string {
  const made = lines.filter(({ rejected }) => rejected === undefined);
  const share = (values: readonly number[], at: number): number =>
    [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(at * values.length))] ?? 0;
  const count = (names: readonly (string | undefined)[]): string =>
    [...new Set(names)]
      .map((name) => [name, names.filter((own) => own === name).length] as const)
      .sort((a, b) => b[1] - a[1])
      .slice(0, 6)
      .map(([name, n]) => `${name} ${n}`)
      .join(", ");
  const tests = made.map((own) => own.looks ?? 0);
  const atFirst = made.map((own) => own.atFirst ?? 0);
  const again = made.filter((own) => own.again).length;
  return [
    `${level}: ${made.length} cases of ${lines.length} draws; left out: ${count(lines.flatMap(({ rejected }) => rejected ?? []))}`,
    `  belief on the complaint alone: middle ${share(atFirst, 0.5).toFixed(2)}, nine in ten below ${share(atFirst, 0.9).toFixed(2)}, most ${share(atFirst, 1).toFixed(2)}`,
    `  Airway's looks: mean ${(tests.reduce((sum, own) => sum + own, 0) / Math.max(1, made.length)).toFixed(2)}, least ${share(tests, 0)}, most ${share(tests, 1)}`,
    `  solved a third time, with other noise: ${((100 * again) / Math.max(1, made.length)).toFixed(2)} %`,
    `  ${new Set(made.map(({ mode }) => mode)).size} kinds of fault; the commonest ${count(made.map(({ mode }) => mode))}`,
    "",
  ].join("\n");
}

if (isMainThread) {
  const files = readdirSync(folder);
  const each = Math.ceil(Number(process.argv[3] ?? 10_000) / (files.length * practiceLevels.length));
  const began = performance.now();
  const tasks: Task[] = files.map((file, place) => ({ file, place, each }));
  const lines: Line[] = [];
  const work = async (): Promise<void> => {
    for (let task = tasks.shift(); task; task = tasks.shift()) {
      const worker = new Worker(process.env.AIRWAY_BENCH_FILE ?? "", { workerData: task });
      lines.push(
        ...(await new Promise<Line[]>((resolve, reject) => {
          worker.once("message", resolve);
          worker.once("error", reject);
        })),
      );
      process.stderr.write(`${task.file}: done\n`);
    }
  };
  await Promise.all([work(), work()]);
  for (const level of practiceLevels)
    process.stdout.write(
      report(
        level,
        lines.filter((own) => own.level === level),
      ),
    );
  const made = lines.filter(({ rejected }) => rejected === undefined).length;
  process.stdout.write(`${made} cases in ${((performance.now() - began) / 1000).toFixed(0)} s\n`);
} else parentPort?.postMessage(run(workerData as Task));
