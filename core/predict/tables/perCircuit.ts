import { LRUCache } from "lru-cache";
import type { CompiledCircuit } from "./compiledCircuit";

/** Works something out once for a circuit; it is kept as long as the circuit. */
export function perCircuit<T>(make: (compiled: CompiledCircuit) => T): (compiled: CompiledCircuit) => T {
  const kept = new WeakMap<CompiledCircuit, { readonly made: T }>();
  return (compiled) => {
    const known = kept.get(compiled) ?? { made: make(compiled) };
    kept.set(compiled, known);
    return known.made;
  };
}

/** Answers kept for one circuit; the longest unused goes when there are more. */
const mostKept = 1500;

/**
 * The same for each key asked for.
 * @param most how many are kept for one circuit; the longest unused goes first
 */
export function perCircuitAnd<K extends string | number | object, T extends object>(
  make: (compiled: CompiledCircuit, key: K) => T,
  most = mostKept,
): (compiled: CompiledCircuit, key: K) => T {
  const caches = perCircuit(() => new LRUCache<K, T>({ max: most }));
  return (compiled, key) => {
    const cache = caches(compiled);
    const made = cache.get(key) ?? make(compiled, key);
    cache.set(key, made);
    return made;
  };
}
