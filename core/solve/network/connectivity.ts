/** The connected groups of nodes of the linear network. */
export interface Groups {
  /** Group of every node: 0 for the reference's group, 1 and up for the others. */
  readonly of: Int32Array;
  /** Number of groups, including the reference's. */
  readonly count: number;
  /** One node of each group except the reference's; it is pinned while solving. */
  readonly pins: readonly number[];
}

/**
 * Finds groups of connected nodes (union-find with path halving).
 * @param size number of nodes without the reference
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
  const number = new Int32Array(size + 1).fill(-1);
  number[root(-1)] = 0;
  const of = new Int32Array(size);
  const pins: number[] = [];
  for (let node = 0; node < size; node++) {
    const own = root(node);
    if (number[own] === -1) number[own] = pins.push(node);
    of[node] = number[own] as number;
  }
  return { of, count: pins.length + 1, pins };
}
