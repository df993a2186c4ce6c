/** Which nodes hang together, and which groups have no path to the reference. */
export interface Groups {
  /** Group of every node; the reference's group is `grounded`. */
  readonly of: Int32Array;
  readonly grounded: number;
  /** 1 where the node's group does not hold the reference. */
  readonly floating: Uint8Array;
  /** One node of each floating group, where it is pinned while solving. */
  readonly pins: readonly number[];
}

/**
 * Groups of nodes joined by links (union-find with path halving).
 * @param size number of nodes, the reference left out
 * @param ends pairs a0, b0, a1, b1 …; -1 is the reference
 */
export function groupsOf(size: number, ends: readonly number[]): Groups {
  const parent = new Int32Array(size + 1);
  for (let node = 0; node <= size; node++) parent[node] = node;
  const root = (node: number): number => {
    let at = node < 0 ? size : node;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at] as number] as number;
      at = parent[at] as number;
    }
    return at;
  };
  for (let i = 0; i < ends.length; i += 2) {
    parent[root(ends[i] as number)] = root(ends[i + 1] as number);
  }
  const grounded = root(-1);
  const of = new Int32Array(size);
  const floating = new Uint8Array(size);
  const pins: number[] = [];
  for (let node = 0; node < size; node++) {
    of[node] = root(node);
    if (of[node] === grounded) continue;
    floating[node] = 1;
    if (of[node] === node) pins.push(node);
  }
  return { of, grounded, floating, pins };
}
