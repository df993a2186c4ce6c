import { describe, expect, test } from "@jest/globals";
import { millimetresPerInch, socketSize, sockets, substitutesFor } from "./spanner";

// The inch is 25.4 mm exactly (international yard and pound agreement, 1959; NIST SP 811 appendix B.8, from memory).
test.each([
  ["7/32 in", 5.55625],
  ["9/32 in", 7.14375],
  ["5/16 in", 7.9375],
  ["1/4 in", 6.35],
  ["3/8 in", 9.525],
  ["1/2 in", 12.7],
  ["10 mm", 10],
  ["5.5 mm", 5.5],
  ["5,5 mm", 5.5],
])("%s is %d mm across flats", (text, millimetres) =>
  expect(socketSize(text)?.millimetres).toBeCloseTo(millimetres, 10),
);

test("text that names no hexagon has no width", () => {
  for (const text of ["T20", "PH2", "", "seven mm", "1/0 in"]) expect(socketSize(text)).toBeNull();
});

describe("substitute sockets", () => {
  // Common practice, no source: people use these three pairs. The error is arithmetic on the exact inch.
  test.each([
    ["5.5 mm", "7/32 in", 0.05625, "snug"],
    ["7 mm", "9/32 in", 0.14375, "loose"],
    ["8 mm", "5/16 in", -0.0625, "snug"],
  ])("%s: %s is off by %d mm, %s", (wanted, text, errorMillimetres, fit) => {
    const [first] = substitutesFor(wanted);
    expect(first).toMatchObject({ text, fit });
    expect(first?.errorMillimetres).toBeCloseTo(errorMillimetres, 10);
  });

  test("works both ways: 5.5 mm is tight on 7/32 in, 8 mm fits on 5/16 in", () => {
    expect(substitutesFor("5/16 in").map(({ text }) => text)).toEqual(["8 mm"]);
    expect(substitutesFor("7/32 in").map(({ text }) => text)).toEqual(["5.5 mm"]);
  });

  test("is never named if it would round the head or not fit", () => {
    expect(substitutesFor("10 mm").map(({ text }) => text)).toEqual([]);
    expect(substitutesFor("T25")).toEqual([]);
    for (const { text, millimetres } of sockets)
      for (const { errorMillimetres } of substitutesFor(text))
        expect(Math.abs(errorMillimetres)).toBeLessThan(0.02 * millimetres + 0.05);
  });

  test("the set is in lowest terms and the inch is exact", () => {
    expect(millimetresPerInch * 10).toBe(254);
    expect(sockets.map(({ text }) => text)).toEqual(expect.arrayContaining(["1/4 in", "3/4 in", "11/32 in"]));
  });
});
