import { existsSync } from "node:fs";
import type { Netlist } from "@core/solve/netlist/netlist";
import { WorkerThread } from "../shell/workerThread.server";
import { type CircuitLayout, layOut } from "./circuitLayout";
import type { LayoutNews, LayoutTask } from "./layoutWorker";

const mostKept = 40;
const made = new Map<string, CircuitLayout>();
const making = new Map<string, Promise<CircuitLayout>>();

/** The thread circuits are laid out on; null where there is none. */
let drafter: WorkerThread<LayoutTask, LayoutNews> | null = null;

/** Lets circuits be laid out on a thread of their own. */
export function drawOnWorker(file: string): void {
  if (!existsSync(file)) return;
  drafter ??= new WorkerThread(file, () => {
    drafter = null;
  });
}

async function drawOn(
  thread: WorkerThread<LayoutTask, LayoutNews>,
  { circuit }: Netlist,
): Promise<CircuitLayout> {
  const drawn: CircuitLayout[] = [];
  await thread.ask({ circuit }, (news) => {
    if ("problem" in news) throw new Error(news.problem);
    drawn.push(news.layout);
    return true;
  });
  return drawn[0] as CircuitLayout;
}

// A thread that died leaves the work to this one: slower, and drawn all the same.
const draw = (netlist: Netlist): Promise<CircuitLayout> =>
  drafter ? drawOn(drafter, netlist).catch(() => layOut(netlist)) : layOut(netlist);

/**
 * The layout of a circuit, made once for its content: at hand when it was made before, else to come.
 */
export function layoutOf(netlist: Netlist): CircuitLayout | Promise<CircuitLayout> {
  const key = JSON.stringify(netlist.circuit);
  const known = made.get(key) ?? making.get(key);
  if (known) return known;
  const coming = draw(netlist)
    .then((layout) => {
      made.set(key, layout);
      if (made.size > mostKept) made.delete(made.keys().next().value as string);
      return layout;
    })
    .finally(() => making.delete(key));
  making.set(key, coming);
  return coming;
}
