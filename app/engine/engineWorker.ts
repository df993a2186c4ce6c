import { parentPort } from "node:worker_threads";
import type { Circuit } from "@core/circuit/circuit";
import { type DiagnoseOptions, diagnose } from "@core/diagnose/diagnose";
import type { Verdict } from "@core/diagnose/verdict/verdict";
import type { Reading, Test } from "@core/predict/reading";
import { CircuitCache } from "@core/predict/tables/circuitCache";
import { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import type { TableParts } from "@core/predict/tables/setupTable";
import { problemText } from "@core/problem/problem";
import { buildNetlist } from "@core/solve/buildNetlist";

export type EngineTask = CompileTask | DiagnoseTask;

/** A circuit to compile. */
interface CompileTask {
  readonly id: number;
  readonly does: "compile";
  readonly circuit: Circuit;
}

/** Readings to diagnose from. */
interface DiagnoseTask {
  readonly id: number;
  readonly does: "diagnose";
  readonly circuit: Circuit;
  readonly readings: readonly Reading[];
  readonly options: DiagnoseOptions;
}

/** The next step of a job: the verdict, and the test to do unless the verdict is reached. */
export interface WhatIsNext {
  readonly verdict: Pick<Verdict, "state" | "replace" | "p">;
  readonly test: Test | null;
}

export type EngineNews =
  /** The table of the set-up with this index in `usualSetups`. */
  | { readonly id: number; readonly setup: number; readonly parts: TableParts }
  | { readonly id: number; readonly ready: true }
  | { readonly id: number; readonly next: WhatIsNext }
  | { readonly id: number; readonly problem: string };

const say = (news: EngineNews, transfer: ArrayBuffer[] = []): void => parentPort?.postMessage(news, transfer);

/** Solves the table of every usual set-up and sends each one as soon as it is solved. */
function compile({ id, circuit }: CompileTask): void {
  const netlist = buildNetlist(circuit, { lumpWires: true });
  if (!netlist.ok) {
    say({ id, problem: netlist.problems.map(problemText).join("; ") });
    return;
  }
  const compiled = new CompiledCircuit(netlist.value);
  for (const [setup, usual] of compiled.usualSetups().entries()) {
    const table = compiled.table(usual);
    table.complete();
    const parts = table.parts();
    say(
      { id, setup, parts },
      Object.values(parts).map(({ buffer }) => buffer as ArrayBuffer),
    );
  }
  say({ id, ready: true });
}

/** Consecutive jobs are often on the same circuit. */
const cache = new CircuitCache(1);

/** Diagnoses readings and returns the next step. */
function whatIsNext({ id, circuit, readings, options }: DiagnoseTask): void {
  const compiled = cache.compile(circuit);
  const found = compiled.ok ? diagnose(compiled.value, readings, options) : compiled;
  if (!found.ok) {
    say({ id, problem: found.problems.map(problemText).join("; ") });
    return;
  }
  const { verdict, next } = found.value;
  const { state, replace, p } = verdict;
  say({ id, next: { verdict: { state, replace, p }, test: next[0]?.test ?? null } });
}

parentPort?.on("message", (task: EngineTask) => (task.does === "compile" ? compile(task) : whatIsNext(task)));
