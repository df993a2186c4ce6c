import { LRUCache } from "lru-cache";
import type { Circuit } from "../../circuit/circuit";
import type { Parsed } from "../../problem/problem";
import { buildNetlist } from "../../solve/buildNetlist";
import { CompiledCircuit, type CompileOptions } from "./compiledCircuit";

/** Compiled circuits, kept by content; the least recently used is dropped first. */
export class CircuitCache {
  private readonly kept: LRUCache<string, CompiledCircuit>;
  /** Content of circuits as keys, stored because serialising a circuit takes longer than looking it up. */
  private readonly keys = new WeakMap<Circuit, string>();

  /**
   * @param most largest number of circuits kept
   * @param options `keptMilliseconds`: how long an unused one is kept; forever if omitted
   */
  constructor(
    most: number,
    private readonly options: CompileOptions & { readonly keptMilliseconds?: number } = {},
  ) {
    const { keptMilliseconds } = options;
    this.kept = new LRUCache({
      max: most,
      ...(keptMilliseconds === undefined
        ? {}
        : { ttl: keptMilliseconds, ttlAutopurge: true, updateAgeOnGet: true }),
    });
  }

  /** The compiled circuit; a circuit with the same content is compiled only once. */
  compile(circuit: Circuit): Parsed<CompiledCircuit> {
    const key = this.keys.get(circuit) ?? JSON.stringify(circuit);
    this.keys.set(circuit, key);
    const known = this.kept.get(key);
    if (known) return { ok: true, value: known };
    const netlist = buildNetlist(circuit, { lumpWires: true });
    if (!netlist.ok) return netlist;
    const compiled = new CompiledCircuit(netlist.value, this.options);
    this.kept.set(key, compiled);
    return { ok: true, value: compiled };
  }
}
