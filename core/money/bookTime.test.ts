import { describe, expect, test } from "@jest/globals";
import { bookMinutes } from "./bookTime";

// By the plan: the motor takes 24 minutes, the pack 12, both together 28, so that they share 8.
const plan: Readonly<Record<string, number>> = { M1: 24, R1: 12 };
const alone = (id: string): number => plan[id] ?? 0;
const together = (ids: readonly string[]): number => (ids.length === 2 ? 28 : alone(ids[0] ?? ""));
const minutes = (entered: Readonly<Record<string, number>>, ids: readonly string[]): number =>
  bookMinutes(ids, {
    entered: Object.entries(entered).map(([part, own]) => ({ part, minutes: own, source: "book" })),
    alone,
    together,
  });

describe("book time, by hand", () => {
  test.each<[Readonly<Record<string, number>>, string[], number]>([
    [{}, ["M1"], 24],
    [{ M1: 42 }, ["M1"], 42],
    [{ M1: 42, R1: 18 }, ["M1", "R1"], 42 + 18 - 8],
    [{ M1: 42 }, ["M1", "R1"], 42 + 12 - 8],
    [{ M1: 42, R1: 3 }, ["M1", "R1"], 42],
    [{}, [], 0],
  ])("entered %j, works %j", (entered, ids, expected) => {
    expect(minutes(entered, ids)).toBe(expected);
  });
});
