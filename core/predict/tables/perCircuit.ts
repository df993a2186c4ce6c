import { LRUCache } from "lru-cache";
import type { CompiledCircuit } from "./compiledCircuit";

/** Computes something once for a circuit and keeps it as long as the circuit. */
export function perCircuit<T>(make: (compiled: CompiledCircuit) => T): (compiled: CompiledCircuit) => T {
  const kept = new WeakMap<CompiledCircuit, { readonly made: T }>();
  return (compiled) => {
    const known = kept.get(compiled) ?? { made: make(compiled) };
    kept.set(compiled, known);
    return known.made;
  };
}

/** Results kept for one circuit; the least recently used goes when there are more. */
const mostKept = 1500;

/**
 * The same for each key.
 * @param most number of results kept for one circuit; the least recently used goes first
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
