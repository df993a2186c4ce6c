import { existsSync } from "node:fs";
import type { Netlist } from "@core/solve/netlist/netlist";
import { LRUCache } from "lru-cache";
import { reportTrouble } from "../shell/log.server";
import { WorkerThread } from "../shell/workerThread.server";
import { type CircuitLayout, layOut } from "./circuitLayout";
import type { LayoutNews, LayoutTask } from "./layoutWorker";

/** Layouts kept in memory, by the circuit's content. */
const layoutsKept = 40;
const made = new LRUCache<string, CircuitLayout>({ max: layoutsKept });
const making = new Map<string, Promise<CircuitLayout>>();

/** The thread circuits are laid out on; null where there is none. */
let drafter: WorkerThread<LayoutTask, LayoutNews> | null = null;

/** Lets circuits be laid out on a thread of their own. */
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

// A thread that died leaves the work to this one: slower, and drawn all the same.
const sample = (netlist: Netlist): Promise<CircuitLayout> =>
  drafter ? drawOn(drafter, netlist).catch(() => layOut(netlist)) : layOut(netlist);

/**
 * The layout of a circuit, made once for its content: at hand when it was made before, else to come.
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
