// The sparse factorisation against a plainly written dense elimination.
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { backSolve, type Edge, factorise, inverseDiagonal, ldlRoom, planLdl, seenOhms } from "./ldl";

interface Network {
  readonly size: number;
  readonly edges: readonly (Edge & { readonly siemens: number })[];
}

/** Inverse by Gauss–Jordan elimination with row exchange. */
function denseInverse(matrix: number[][]): number[][] {
  const size = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...row.map((_, j) => (i === j ? 1 : 0))]);
  for (let column = 0; column < size; column++) {
    let best = column;
    for (let row = column; row < size; row++)
      if (Math.abs(rows[row]?.[column] ?? 0) > Math.abs(rows[best]?.[column] ?? 0)) best = row;
    [rows[column], rows[best]] = [rows[best] ?? [], rows[column] ?? []];
    const pivot = rows[column]?.[column] ?? 1;
    rows[column] = (rows[column] ?? []).map((value) => value / pivot);
    for (let row = 0; row < size; row++) {
      const factor = rows[row]?.[column] ?? 0;
      if (row === column || factor === 0) continue;
      rows[row] = (rows[row] ?? []).map((value, j) => value - factor * (rows[column]?.[j] ?? 0));
    }
  }
  return rows.map((row) => row.slice(size));
}

function dense({ size, edges }: Network): number[][] {
  const matrix = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  const add = (i: number, j: number, value: number): void => {
    const row = matrix[i];
    if (row) row[j] = (row[j] ?? 0) + value;
  };
  for (const { a, b, siemens } of edges) {
    if (a === b) continue;
    if (a >= 0) add(a, a, siemens);
    if (b >= 0) add(b, b, siemens);
    if (a >= 0 && b >= 0) {
      add(a, b, -siemens);
      add(b, a, -siemens);
    }
  }
  return matrix;
}

function factored({ size, edges }: Network) {
  const pattern = planLdl(size, edges);
  const values = ldlRoom(pattern);
  const put = (slot: number, value: number): void => {
    values[slot] = (values[slot] ?? 0) + value;
  };
  edges.forEach(({ a, b, siemens }, index) => {
    if (a === b) return;
    if (a >= 0) put(pattern.stepOf[a] ?? 0, siemens);
    if (b >= 0) put(pattern.stepOf[b] ?? 0, siemens);
    const slot = pattern.edgeSlot[index] ?? -1;
    if (slot >= 0) put(slot, -siemens);
  });
  factorise(pattern, values);
  return { pattern, values };
}

/** Connected networks: a random spanning tree to the reference, and some extra edges. */
const anyNetwork = fc.integer({ min: 1, max: 14 }).chain((size) =>
  fc
    .record({
      parents: fc.array(fc.nat(), { minLength: size, maxLength: size }),
      across: fc.array(fc.tuple(fc.nat(size - 1), fc.nat(size - 1)), { maxLength: 12 }),
      siemens: fc.array(fc.double({ min: 1e-3, max: 1e3, noNaN: true }), {
        minLength: size + 12,
        maxLength: size + 12,
      }),
    })
    .map(
      ({ parents, across, siemens }): Network => ({
        size,
        edges: [
          ...parents.map((parent, node) => ({
            a: node,
            b: node === 0 ? -1 : (parent % node) - (parent % 3 === 0 ? 1 : 0),
          })),
          ...across.map(([a, b]) => ({ a, b })),
        ].map((edge, i) => ({ ...edge, siemens: siemens[i] ?? 1 })),
      }),
    ),
);

const close = (value: number, expected: number): void =>
  expect(Math.abs(value - expected)).toBeLessThanOrEqual(1e-7 * Math.max(1, Math.abs(expected)));

describe("the factorisation", () => {
  test("solves as a dense elimination does, and gives the diagonal of the inverse", () => {
    fc.assert(
      fc.property(anyNetwork, (network) => {
        const { pattern, values } = factored(network);
        const inverse = denseInverse(dense(network));
        for (let node = 0; node < network.size; node++) {
          const x = new Float64Array(network.size);
          x[pattern.stepOf[node] ?? 0] = 1;
          backSolve(pattern, values, x);
          for (let other = 0; other < network.size; other++)
            close(x[pattern.stepOf[other] ?? 0] ?? 0, inverse[other]?.[node] ?? 0);
        }
        const room = ldlRoom(pattern);
        inverseDiagonal(pattern, values, room);
        for (let node = 0; node < network.size; node++)
          close(room[pattern.stepOf[node] ?? 0] ?? 0, inverse[node]?.[node] ?? 0);
      }),
      { numRuns: 150, seed: 8 },
    );
  });

  test("the ohms between two nodes are e Z e, and the scratch is zeros again", () => {
    fc.assert(
      fc.property(anyNetwork, fc.nat(), fc.nat(), (network, one, other) => {
        const { pattern, values } = factored(network);
        const inverse = denseInverse(dense(network));
        const [a, b] = [one % network.size, (other % (network.size + 1)) - 1];
        if (a === b) return;
        const at = (i: number, j: number): number => (i < 0 || j < 0 ? 0 : (inverse[i]?.[j] ?? 0));
        const scratch = new Float64Array(network.size);
        close(seenOhms(pattern, values, { a, b }, scratch), at(a, a) + at(b, b) - 2 * at(a, b));
        expect(scratch.every((value) => value === 0)).toBe(true);
      }),
      { numRuns: 150, seed: 8 },
    );
  });

  test("a ladder of equal ohms: series and parallel by hand", () => {
    // 1 Ω to the reference, 1 Ω more in series, and 1 Ω across both: node 0 sees 1 ∥ 2 and node 1 sees 1 ∥ 2.
    const network: Network = {
      size: 2,
      edges: [
        { a: 0, b: -1, siemens: 1 },
        { a: 1, b: 0, siemens: 1 },
        { a: 1, b: -1, siemens: 1 },
      ],
    };
    const { pattern, values } = factored(network);
    const scratch = new Float64Array(2);
    expect(seenOhms(pattern, values, { a: 0, b: -1 }, scratch)).toBeCloseTo(2 / 3, 12);
    expect(seenOhms(pattern, values, { a: 0, b: 1 }, scratch)).toBeCloseTo(2 / 3, 12);
  });
});
