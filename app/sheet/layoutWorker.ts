import { parentPort } from "node:worker_threads";
import type { Circuit } from "@core/circuit/circuit";
import { problemText } from "@core/problem/problem";
import { buildNetlist } from "@core/solve/buildNetlist";
import { type CircuitLayout, layOut } from "./circuitLayout";

/** A circuit to lay out. */
export interface LayoutTask {
  readonly id: number;
  readonly circuit: Circuit;
}
export type LayoutNews = { readonly id: number } & (
  | { readonly layout: CircuitLayout }
  | { readonly problem: string }
);

async function answer({ id, circuit }: LayoutTask): Promise<LayoutNews> {
  const netlist = buildNetlist(circuit, { lumpWires: true });
  if (!netlist.ok) return { id, problem: netlist.problems.map(problemText).join("; ") };
  return { id, layout: await layOut(netlist.value) };
}

parentPort?.on("message", (task: LayoutTask) => {
  answer(task).then(
    (news) => parentPort?.postMessage(news),
    (thrown: unknown) => parentPort?.postMessage({ id: task.id, problem: String(thrown) }),
  );
});
