import { existsSync } from "node:fs";
import type { Netlist } from "@core/solve/netlist/netlist";
import { LRUCache } from "lru-cache";
import { reportTrouble } from "../shell/log.server";
import { WorkerThread } from "../shell/workerThread.server";
import { type CircuitLayout, layOut } from "./circuitLayout";
import type { LayoutNews, LayoutTask } from "./layoutWorker";

/** Layouts in memory, by the circuit's content. */
const layoutsKept = 40;
const made = new LRUCache<string, CircuitLayout>({ max: layoutsKept });
const making = new Map<string, Promise<CircuitLayout>>();

/** The thread that lays circuits out; null if there is none. */
let drafter: WorkerThread<LayoutTask, LayoutNews> | null = null;

/** Lays circuits out on a thread of their own from now on. */
export function layOutOn(file: string): void {
  if (!existsSync(file)) return;
  drafter ??= new WorkerThread(file, (cause) => {
    drafter = null;
    reportTrouble(
      cause,
      "The background process that lays out drawings has stopped. Nothing is lost, but drawing a new circuit slows everybody down until Airway is restarted.",
    );
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

// If the thread died, the layout is computed in this process: slower, but it is still shown.
const sample = (netlist: Netlist): Promise<CircuitLayout> =>
  drafter ? drawOn(drafter, netlist).catch(() => layOut(netlist)) : layOut(netlist);

/**
 * The layout of a circuit, computed once for its content: the layout itself if it was computed before, otherwise a
 * promise.
 */
export function layoutOf(netlist: Netlist): CircuitLayout | Promise<CircuitLayout> {
  const key = JSON.stringify(netlist.circuit);
  const known = made.get(key) ?? making.get(key);
  if (known) return known;
  const coming = sample(netlist)
    .then((layout) => {
      made.set(key, layout);
      return layout;
    })
    .finally(() => making.delete(key));
  making.set(key, coming);
  return coming;
}
