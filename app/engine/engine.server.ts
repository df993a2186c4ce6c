import type { Circuit } from "@core/circuit/circuit";
import { CircuitCache } from "@core/predict/tables/circuitCache";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { problemText } from "@core/problem/problem";

/** How many compiled circuits stay in memory, at about 25 MB each, and how long an unused one stays. */
const circuitsKept = 8;
const keptMilliseconds = 10 * 60_000;
const cache = new CircuitCache(circuitsKept, { keptMilliseconds });

/** A circuit that is being compiled, or is compiled. */
interface Compiling {
  readonly made: Promise<CompiledCircuit>;
  /** The requests that asked for it, by signal; null for work that is needed in any case. */
  readonly askedBy: Set<AbortSignal | null>;
}
const compiling = new WeakMap<CompiledCircuit, Compiling>();

/**
 * Solves the tables of a circuit's usual set-ups.
 * @param isWanted returns false once every request for the circuit has been aborted
 */
export type CompileTables = (compiled: CompiledCircuit, isWanted: () => boolean) => void | Promise<void>;

/** Solves the tables in the request that asks for them. */
export const compileHere = (compiled: CompiledCircuit): void => {
  for (const setup of compiled.usualSetups()) compiled.table(setup).complete();
};

let compileTables: CompileTables = compileHere;

/** Sets how tables are solved from now on. */
export function compileWith(way: CompileTables): void {
  compileTables = way;
}

async function compile(compiled: CompiledCircuit, isWanted: () => boolean): Promise<CompiledCircuit> {
  await compileTables(compiled, isWanted);
  return compiled;
}

/**
 * A circuit with its faults and its points but without solved tables, which is enough to check entries.
 * @throws if the solver does not know one of its parts
 */
export function withoutTables(circuit: Circuit): CompiledCircuit {
  const compiled = cache.compile(circuit);
  if (!compiled.ok) throw new Error(compiled.problems.map(problemText).join("; "));
  return compiled.value;
}

/**
 * A circuit compiled for diagnosis, once for each circuit, while other requests are served. A waiting circuit is
 * skipped once every request for it has been aborted.
 * @param request signal of the request
 * @throws as `withoutTables`
 */
export function engineFor(circuit: Circuit, request: AbortSignal | null = null): Promise<CompiledCircuit> {
  const compiled = withoutTables(circuit);
  const known = compiling.get(compiled);
  if (known) {
    known.askedBy.add(request);
    return known.made;
  }
  const askedBy = new Set([request]);
  const made = compile(compiled, () => [...askedBy].some((own) => !own?.aborted));
  compiling.set(compiled, { made, askedBy });
  // If this attempt failed or was skipped, the next request compiles it again.
  made.catch(() => compiling.delete(compiled));
  return made;
}
