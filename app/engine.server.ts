import type { Circuit } from "@core/circuit/circuit";
import { problemText } from "@core/formats/problem";
import { CircuitCache } from "@core/predict/circuitCache";
import type { CompiledCircuit } from "@core/predict/compiledCircuit";
import { findCircuit } from "@db/repositories/circuits.server";
import { listJobs } from "@db/repositories/jobs.server";

const circuitsKept = 12;
const cache = new CircuitCache(circuitsKept);
const readying = new WeakMap<CompiledCircuit, Promise<CompiledCircuit>>();

const breath = (): Promise<void> => new Promise((resolve) => void setImmediate(resolve));

async function prepare(compiled: CompiledCircuit): Promise<CompiledCircuit> {
  for (const setup of compiled.usualSetups()) {
    await breath();
    compiled.table(setup).complete();
  }
  return compiled;
}

/**
 * A circuit made ready for diagnosis, other requests being served between its set-ups; once for each
 * circuit. Throws when the solver does not know one of its parts.
 */
export function engineFor(circuit: Circuit): Promise<CompiledCircuit> {
  const compiled = cache.compile(circuit);
  if (!compiled.ok) throw new Error(compiled.problems.map(problemText).join("; "));
  const known = readying.get(compiled.value);
  if (known) return known;
  const made = prepare(compiled.value);
  readying.set(compiled.value, made);
  return made;
}

/** Makes the circuits of open jobs ready in the background. */
export async function warmEngine(): Promise<void> {
  const open = (await listJobs()).filter(({ stage }) => stage !== "closed");
  for (const id of new Set(open.map(({ circuitId }) => circuitId))) {
    const circuit = await findCircuit(id);
    if (circuit) await engineFor(circuit);
  }
}
