import { serialize } from "node:v8";
import { parentPort, receiveMessageOnPort } from "node:worker_threads";
import type { Circuit } from "@core/circuit/circuit";
import { type DiagnoseOptions, diagnose } from "@core/diagnose/diagnose";
import { completeColumns } from "@core/diagnose/tests/candidateTests";
import type { StoppingCosts } from "@core/money/stoppingCosts";
import { allTools } from "@core/predict/observations/observation";
import type { Reading } from "@core/predict/reading";
import { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import type { SetupTable, TableParts } from "@core/predict/tables/setupTable";
import { buildNetlist } from "@core/solve/buildNetlist";
import { inSlices } from "../shell/turnTaking.server";

/** A circuit to make ready. */
interface CircuitTask {
  readonly id: number;
  readonly name: number;
  readonly circuit: Circuit;
}

/** What some readings on a circuit made ready before would mean. */
interface ReadingsTask {
  readonly id: number;
  readonly name: number;
  readonly readings: readonly Reading[];
  readonly options: DiagnoseOptions;
}

export type EngineTask = CircuitTask | ReadingsTask;

export type EngineNews =
  /** The set-up at this place among `usualSetups` is ready. */
  | { readonly id: number; readonly setup: number; readonly parts: TableParts }
  | { readonly id: number; readonly ready: true }
  /** A `Diagnosis` as bytes (`v8.serialize`). */
  | { readonly id: number; readonly diagnosis: Uint8Array }
  | { readonly id: number; readonly problem: string };

/** Circuits made ready here, by the name they were given; the longest unused goes when there are too many. */
const ready = new Map<number, CompiledCircuit>();
const mostReady = 20;

const say = (news: EngineNews): void => parentPort?.postMessage(news);

/** The table's numbers where two threads can read them: neither changes them any more. */
function shared(table: SetupTable): TableParts {
  const { volts, speed, amps, behind, buzz } = table.parts();
  const floats = (own: Float32Array): Float32Array => {
    const copy = new Float32Array(new SharedArrayBuffer(own.byteLength));
    copy.set(own);
    return copy;
  };
  const bytes = new Uint8Array(new SharedArrayBuffer(buzz.byteLength));
  bytes.set(buzz);
  const parts = {
    volts: floats(volts),
    speed: floats(speed),
    amps: floats(amps),
    behind: floats(behind),
    buzz: bytes,
  };
  table.adopt(parts);
  return parts;
}

/** Fills every usual set-up's table and hands each over as it is done; what is asked of other circuits goes first. */
function makeReady({ id, name, circuit }: CircuitTask): void {
  const netlist = buildNetlist(circuit, { lumpWires: true });
  if (!netlist.ok) {
    say({ id, problem: netlist.problems[0]?.message ?? "cannot be solved" });
    return;
  }
  const compiled = new CompiledCircuit(netlist.value);
  compiled.usualSetups().forEach((usual, setup) => {
    const table = compiled.table(usual);
    table.complete(() => {
      answerAsked();
      return true;
    });
    say({ id, setup, parts: shared(table) });
  });
  ready.set(name, compiled);
  if (ready.size > mostReady) ready.delete(ready.keys().next().value as number);
  say({ id, ready: true });
  // What every suspect shows at every look, while nothing is asked: no reading has to wait for it.
  void inSlices(completeColumns(compiled, allTools));
}

/** Costs as they first came over: what was priced with them is known by the object. */
const costsKnown = new Map<string, StoppingCosts>();

function known(costs: StoppingCosts): StoppingCosts {
  const key = JSON.stringify(costs);
  const first = costsKnown.get(key) ?? costs;
  costsKnown.set(key, first);
  return first;
}

function workOut({ id, name, readings, options }: ReadingsTask): void {
  const compiled = ready.get(name);
  if (!compiled) {
    say({ id, problem: "this circuit is not ready here" });
    return;
  }
  ready.delete(name);
  ready.set(name, compiled);
  const { costs } = options;
  const diagnosis = diagnose(compiled, readings, costs ? { ...options, costs: known(costs) } : options);
  say(
    diagnosis.ok
      ? { id, diagnosis: serialize(diagnosis.value) }
      : { id, problem: diagnosis.problems[0]?.message ?? "cannot be weighed" },
  );
}

/** Circuits that came while another was being made ready. */
const waiting: CircuitTask[] = [];

/** Answers what has come in meanwhile; circuits have their turn later. */
function answerAsked(): void {
  if (!parentPort) return;
  for (let came = receiveMessageOnPort(parentPort); came; came = receiveMessageOnPort(parentPort)) {
    const task = came.message as EngineTask;
    if ("circuit" in task) waiting.push(task);
    else workOut(task);
  }
}

parentPort?.on("message", (task: EngineTask) => {
  if ("readings" in task) workOut(task);
  else for (let next: CircuitTask | undefined = task; next; next = waiting.shift()) makeReady(next);
});
