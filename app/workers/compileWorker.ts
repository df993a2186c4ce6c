import { parentPort } from "node:worker_threads";
import type { Circuit } from "@core/circuit/circuit";
import { CompiledCircuit } from "@core/predict/compiledCircuit";
import type { TableParts } from "@core/predict/setupTable";
import { buildNetlist } from "@core/solve/netlist";

/** A circuit to make ready, and one of its set-ups made so. */
export interface CompileTask {
  readonly id: number;
  readonly circuit: Circuit;
}
export type CompileNews =
  /** The set-up at this place among `usualSetups` is ready. */
  | { readonly id: number; readonly setup: number; readonly parts: TableParts }
  | { readonly id: number; readonly done: true }
  | { readonly id: number; readonly problem: string };

/** Fills every usual set-up's table and hands each over as it is done. */
function compile({ id, circuit }: CompileTask): void {
  const say = (news: CompileNews, moved: ArrayBuffer[] = []): void => parentPort?.postMessage(news, moved);
  const netlist = buildNetlist(circuit, { lumpWires: true });
  if (!netlist.ok) {
    say({ id, problem: netlist.problems[0]?.message ?? "cannot be solved" });
    return;
  }
  const compiled = new CompiledCircuit(netlist.value);
  compiled.usualSetups().forEach((usual, setup) => {
    const table = compiled.table(usual);
    table.complete();
    const parts = table.parts();
    say(
      { id, setup, parts },
      Object.values(parts).map(({ buffer }) => buffer as ArrayBuffer),
    );
  });
  say({ id, done: true });
}

parentPort?.on("message", compile);
