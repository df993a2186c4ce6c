import type { Circuit } from "@core/circuit/circuit";
import { CircuitCache } from "@core/predict/tables/circuitCache";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { problemText } from "@core/problem/problem";

/** How many compiled circuits stay in memory, at about 25 MB each, and how long an unused one stays. */
const circuitsKept = 12;
const keptMilliseconds = 10 * 60_000;
const cache = new CircuitCache(circuitsKept, { keptMilliseconds });
const compiling = new WeakMap<CompiledCircuit, Promise<CompiledCircuit>>();

/** Solves the tables of a circuit's usual set-ups. */
export type CompileTables = (compiled: CompiledCircuit) => void | Promise<void>;

/** Solves the tables in the request that asks for them. */
export const compileHere: CompileTables = (compiled) => {
  for (const setup of compiled.usualSetups()) compiled.table(setup).complete();
};

let compileTables = compileHere;

/** Says how tables are solved from now on. */
export function compileWith(way: CompileTables): void {
  compileTables = way;
}

async function compile(compiled: CompiledCircuit): Promise<CompiledCircuit> {
  await compileTables(compiled);
  return compiled;
}

/**
 * A circuit with its faults and its points, its tables not solved: enough to check what was entered. Throws when the solver
 * does not know one of its parts.
 */
export function untabled(circuit: Circuit): CompiledCircuit {
  const compiled = cache.compile(circuit);
  if (!compiled.ok) throw new Error(compiled.problems.map(problemText).join("; "));
  return compiled.value;
}

/** A circuit compiled for diagnosis, once for each circuit, while other requests are served. Throws as `untabled` does. */
export function engineFor(circuit: Circuit): Promise<CompiledCircuit> {
  const compiled = untabled(circuit);
  const known = compiling.get(compiled);
  if (known) return known;
  const made = compile(compiled);
  compiling.set(compiled, made);
  return made;
}
