import { parentPort } from "node:worker_threads";
import type { Circuit } from "@core/circuit/circuit";
import { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import type { TableParts } from "@core/predict/tables/setupTable";
import { problemText } from "@core/problem/problem";
import { buildNetlist } from "@core/solve/buildNetlist";

/** A circuit to compile. */
export interface EngineTask {
  readonly id: number;
  readonly circuit: Circuit;
}

export type EngineNews =
  /** The table of the set-up at this place among `usualSetups`. */
  | { readonly id: number; readonly setup: number; readonly parts: TableParts }
  | { readonly id: number; readonly ready: true }
  | { readonly id: number; readonly problem: string };

/** Solves the table of every usual set-up and sends each one as soon as it is solved. */
function compile({ id, circuit }: EngineTask): void {
  const say = (news: EngineNews, transfer: ArrayBuffer[] = []): void =>
    parentPort?.postMessage(news, transfer);
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

parentPort?.on("message", compile);
