import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { gaussJordan } from "./gaussJordan";

test("2x + y = 5, x - y = 1, and their inverse, by hand", () => {
  const matrix = Float64Array.from([2, 1, 5, 1, 0, 1, -1, 1, 0, 1]);
  gaussJordan(matrix, 2, 5);
  const inverse = [1 / 3, 1 / 3, 1 / 3, -2 / 3];
  const expected = [1, 0, 2, inverse[0], inverse[1], 0, 1, 1, inverse[2], inverse[3]];
  for (const [i, value] of matrix.entries()) expect(value).toBeCloseTo(expected[i] ?? Number.NaN, 12);
});

test("a zero pivot is exchanged", () => {
  const matrix = Float64Array.from([0, 2, 6, 4, 0, 8]);
  gaussJordan(matrix, 2, 3);
  expect([matrix[2], matrix[5]]).toEqual([2, 3]);
});

test("the solution satisfies the equations", () => {
  const entry = fc.double({ min: -5, max: 5, noNaN: true });
  fc.assert(
    fc.property(
      fc.array(entry, { minLength: 16, maxLength: 16 }),
      fc.array(entry, { minLength: 4, maxLength: 4 }),
      (a, x) => {
        // A dominant diagonal keeps the matrix far from singular.
        const rows = [0, 1, 2, 3].map((row) =>
          [0, 1, 2, 3].map((col) => (a[4 * row + col] ?? 0) + (row === col ? 25 : 0)),
        );
        const right = rows.map((row) => row.reduce((sum, own, col) => sum + own * (x[col] ?? 0), 0));
        const matrix = Float64Array.from(rows.flatMap((row, i) => [...row, right[i] ?? 0]));
        gaussJordan(matrix, 4, 5);
        for (const [i, own] of x.entries()) expect(matrix[5 * i + 4]).toBeCloseTo(own, 9);
      },
    ),
    { numRuns: 200, seed: 6 },
  );
});
