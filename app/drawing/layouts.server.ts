import { existsSync } from "node:fs";
import { Worker } from "node:worker_threads";
import type { Netlist } from "@core/solve/netlist";
import type { LayoutNews, LayoutTask } from "../workers/layoutWorker";
import { type CircuitLayout, layOut } from "./circuitLayout";

const mostKept = 40;
const made = new Map<string, CircuitLayout>();
const making = new Map<string, Promise<CircuitLayout>>();

interface Waits {
  readonly resolve: (layout: CircuitLayout) => void;
  readonly reject: (problem: Error) => void;
}

/** The thread circuits are laid out on, and who waits for what it draws. */
class Drafter {
  private readonly worker: Worker;
  private readonly waiting = new Map<number, Waits>();
  private last = 0;

  constructor(file: string) {
    this.worker = new Worker(file);
    this.worker.unref();
    this.worker.on("message", (news: LayoutNews) => {
      const waits = this.waiting.get(news.id);
      this.waiting.delete(news.id);
      if ("layout" in news) waits?.resolve(news.layout);
      else waits?.reject(new Error(news.problem));
    });
    this.worker.on("error", (problem) => {
      drafter = null;
      for (const { reject } of this.waiting.values()) reject(problem);
    });
  }

  draw({ circuit }: Netlist): Promise<CircuitLayout> {
    const task: LayoutTask = { id: ++this.last, circuit };
    return new Promise((resolve, reject) => {
      this.waiting.set(task.id, { resolve, reject });
      this.worker.postMessage(task);
    });
  }
}

let drafter: Drafter | null = null;

/** Lets circuits be laid out on a thread of their own. */
export function drawOnWorker(file: string): void {
  if (existsSync(file)) drafter ??= new Drafter(file);
}

async function draw(netlist: Netlist): Promise<CircuitLayout> {
  // A thread that died leaves the work to this one: slower, and drawn all the same.
  if (drafter) return drafter.draw(netlist).catch(() => layOut(netlist));
  return layOut(netlist);
}

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
