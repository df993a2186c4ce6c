/**
 * Sparse symmetric factorisation L D Lᵀ with a pattern that is fixed once and refilled many times. A blower circuit is
 * nearly a tree, so minimum-degree elimination (Tinney and Walker 1967) leaves almost no fill, and a refill costs
 * microseconds.
 */
export interface LdlPattern {
  /** Number of unknowns. */
  readonly size: number;
  /** Elimination step of each unknown. */
  readonly stepOf: Int32Array;
  /** Start of each step's column in `rows`; one longer than `size`. */
  readonly columnStart: Int32Array;
  /** The later steps each column updates, ascending. */
  readonly rows: Int32Array;
  /** For every pair (i, j ≥ i) of a column, the slot its update goes to; diagonals first. */
  readonly updateStart: Int32Array;
  readonly updateSlot: Int32Array;
  /** Slot of each given edge's off-diagonal value, or -1 if one end is the reference. */
  readonly edgeSlot: Int32Array;
}

/** One end of an edge; -1 stands for the reference node. */
export interface Edge {
  readonly a: number;
  readonly b: number;
}

function adjacency(size: number, edges: readonly Edge[]): Set<number>[] {
  const neighbours = Array.from({ length: size }, () => new Set<number>());
  for (const { a, b } of edges) {
    if (a < 0 || b < 0 || a === b) continue;
    neighbours[a]?.add(b);
    neighbours[b]?.add(a);
  }
  return neighbours;
}

/** Eliminates the node of least degree until none is left; its remaining neighbours become its column. */
function eliminate(neighbours: Set<number>[]): { order: number[]; columns: number[][] } {
  const order: number[] = [];
  const columns: number[][] = [];
  const left = new Set(neighbours.keys());
  while (left.size > 0) {
    let chosen = -1;
    let degree = Number.POSITIVE_INFINITY;
    for (const node of left) {
      const own = neighbours[node]?.size ?? 0;
      if (own < degree) [chosen, degree] = [node, own];
    }
    const around = [...(neighbours[chosen] ?? [])];
    for (const one of around) {
      neighbours[one]?.delete(chosen);
      for (const other of around) if (other !== one) neighbours[one]?.add(other);
    }
    left.delete(chosen);
    order.push(chosen);
    columns.push(around);
  }
  return { order, columns };
}

/**
 * Plans the elimination of a conductance matrix.
 * @param size number of nodes without the reference
 * @param edges branches between nodes; an end of -1 is the reference
 */
export function planLdl(size: number, edges: readonly Edge[]): LdlPattern {
  const { order, columns } = eliminate(adjacency(size, edges));
  const stepOf = new Int32Array(size);
  order.forEach((node, step) => {
    stepOf[node] = step;
  });
  const sorted = columns.map((column) => column.map((node) => stepOf[node] ?? 0).sort((x, y) => x - y));
  const columnStart = new Int32Array(size + 1);
  sorted.forEach((column, step) => {
    columnStart[step + 1] = (columnStart[step] ?? 0) + column.length;
  });
  const rows = Int32Array.from(sorted.flat());
  const slotOf = (low: number, high: number): number => {
    const start = columnStart[low] ?? 0;
    return size + start + (sorted[low] ?? []).indexOf(high);
  };
  const updateStart = new Int32Array(size + 1);
  const updates: number[] = [];
  sorted.forEach((column, step) => {
    column.forEach((one, index) => {
      updates.push(one);
      for (const other of column.slice(index + 1)) updates.push(slotOf(one, other));
    });
    updateStart[step + 1] = updates.length;
  });
  const edgeSlot = Int32Array.from(edges, ({ a, b }) => {
    if (a < 0 || b < 0 || a === b) return -1;
    const [one, other] = [stepOf[a] ?? 0, stepOf[b] ?? 0];
    return slotOf(Math.min(one, other), Math.max(one, other));
  });
  return { size, stepOf, columnStart, rows, updateStart, updateSlot: Int32Array.from(updates), edgeSlot };
}

/** Allocates one matrix of a pattern: `size` diagonals, then the off-diagonals by column. */
export const ldlRoom = (pattern: LdlPattern): Float64Array =>
  new Float64Array(pattern.size + pattern.rows.length);

/**
 * Factorises in place. Every connected group of nodes must be tied to the reference (the caller pins floating groups),
 * so that no pivot is zero.
 * @param values diagonals by step, then off-diagonals by slot; holds D and L afterwards
 */
export function factorise(pattern: LdlPattern, values: Float64Array): void {
  const { size, columnStart, updateStart, updateSlot } = pattern;
  for (let step = 0; step < size; step++) {
    const start = columnStart[step] as number;
    const end = columnStart[step + 1] as number;
    if (start === end) continue;
    const pivot = 1 / (values[step] as number);
    let update = updateStart[step] as number;
    for (let i = start; i < end; i++) {
      const raw = values[size + i] as number;
      const factor = raw * pivot;
      for (let j = i; j < end; j++) {
        const slot = updateSlot[update++] as number;
        values[slot] = (values[slot] as number) - factor * (values[size + j] as number);
      }
    }
    for (let i = start; i < end; i++) values[size + i] = (values[size + i] as number) * pivot;
  }
}

/** Solves in place: `x`, indexed by step, holds currents before and volts afterwards. */
export function backSolve(pattern: LdlPattern, values: Float64Array, x: Float64Array): void {
  const { size, columnStart, rows } = pattern;
  for (let step = 0; step < size; step++) {
    const own = x[step] as number;
    if (own === 0) continue;
    for (let i = columnStart[step] as number; i < (columnStart[step + 1] as number); i++) {
      const row = rows[i] as number;
      x[row] = (x[row] as number) - (values[size + i] as number) * own;
    }
  }
  for (let step = size - 1; step >= 0; step--) {
    let own = (x[step] as number) / (values[step] as number);
    for (let i = columnStart[step] as number; i < (columnStart[step + 1] as number); i++) {
      own -= (values[size + i] as number) * (x[rows[i] as number] as number);
    }
    x[step] = own;
  }
}

/**
 * The resistance between two nodes (-1 for the reference): Σ y² / D with L y = e_a − e_b, so the backward substitution
 * is not needed.
 * @param scratch zeros of length `size`; zero again on return
 * @returns ohms
 */
export function seenOhms(
  pattern: LdlPattern,
  values: Float64Array,
  nodes: Edge,
  scratch: Float64Array,
): number {
  const { size, stepOf, columnStart, rows } = pattern;
  let first = size;
  if (nodes.a >= 0) {
    const step = stepOf[nodes.a] as number;
    scratch[step] = 1;
    first = step;
  }
  if (nodes.b >= 0) {
    const step = stepOf[nodes.b] as number;
    scratch[step] = (scratch[step] as number) - 1;
    if (step < first) first = step;
  }
  let ohms = 0;
  for (let step = first; step < size; step++) {
    const own = scratch[step] as number;
    if (own === 0) continue;
    scratch[step] = 0;
    ohms += (own * own) / (values[step] as number);
    for (let i = columnStart[step] as number; i < (columnStart[step + 1] as number); i++) {
      const row = rows[i] as number;
      scratch[row] = (scratch[row] as number) - (values[size + i] as number) * own;
    }
  }
  return ohms;
}

/**
 * The inverse's diagonal from the factors alone, by the sparse inverse of Takahashi, Fagan and Chin (1973): the
 * inverse's entries on the pattern of L follow column by column, starting from the last.
 * @param values factorised values
 * @param inverse a matrix from `ldlRoom`; holds the inverse on the pattern afterwards, diagonals by step
 */
export function inverseDiagonal(pattern: LdlPattern, values: Float64Array, inverse: Float64Array): void {
  const { size, columnStart, rows, updateStart, updateSlot } = pattern;
  for (let step = size - 1; step >= 0; step--) {
    const start = columnStart[step] as number;
    const end = columnStart[step + 1] as number;
    let own = 1 / (values[step] as number);
    for (let i = start; i < end; i++) inverse[size + i] = 0;
    // Pairs (i, j ≥ i) of the column, in the order the elimination visits them.
    let update = updateStart[step] as number;
    for (let i = start; i < end; i++) {
      const factorI = values[size + i] as number;
      for (let j = i; j < end; j++) {
        const slot = updateSlot[update++] as number;
        const between = inverse[j === i ? (rows[i] as number) : slot] as number;
        inverse[size + i] = (inverse[size + i] as number) - between * (values[size + j] as number);
        if (j !== i) inverse[size + j] = (inverse[size + j] as number) - between * factorI;
      }
    }
    for (let i = start; i < end; i++) own -= (inverse[size + i] as number) * (values[size + i] as number);
    inverse[step] = own;
  }
}
