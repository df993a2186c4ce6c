import { describe, expect, test } from "@jest/globals";
import { GuessLimit } from "./guessLimit";

/** A limit with a clock that the test sets. */
function limited() {
  let clock = 0;
  const limit = new GuessLimit(
    {
      place: { free: 3, firstMilliseconds: 1000, longestMilliseconds: 900_000 },
      overall: { free: 20, firstMilliseconds: 500, longestMilliseconds: 30_000 },
    },
    () => clock,
  );
  return {
    pass: (milliseconds: number) => {
      clock += milliseconds;
    },
    /** Milliseconds to wait, 0 if the guess was made. */
    guess: (place: string, isRight = false): number => {
      const begun = limit.begin(place);
      if ("waitMilliseconds" in begun) return begun.waitMilliseconds;
      if (isRight) begun.right();
      return 0;
    },
  };
}

describe("wrong guesses", () => {
  test("three slips cost nothing, then the wait doubles", () => {
    const { guess, pass } = limited();
    expect([1, 2, 3].map(() => guess("tablet"))).toEqual([0, 0, 0]);
    for (const wait of [1000, 2000, 4000, 8000]) {
      expect(guess("tablet")).toBe(0);
      expect(guess("tablet", true)).toBe(wait);
      pass(wait);
    }
    expect(guess("tablet", true)).toBe(0);
    expect([1, 2, 3].map(() => guess("tablet"))).toEqual([0, 0, 0]);
  });

  test("two hundred of them shut that device out for a quarter of an hour, and no other", () => {
    const { guess, pass } = limited();
    guess("bay 1", true);
    for (let made = 0; made < 200; made++) pass(guess("thief"));
    expect(guess("thief", true)).toBeGreaterThan(0);
    expect(guess("bay 1", true)).toBe(0);
    // One that has never signed in waits a little, since the guesses might be coming from many devices.
    const wait = guess("new tablet", true);
    expect(wait).toBeLessThanOrEqual(30_000);
    pass(wait);
    expect(guess("new tablet", true)).toBe(0);
  });

  test("guesses made side by side gain nothing", () => {
    const { guess } = limited();
    const made = Array.from({ length: 50 }, () => guess("tablet")).filter((wait) => wait === 0);
    expect(made).toHaveLength(4);
  });

  test("from many places together make strangers wait", () => {
    const { guess } = limited();
    for (let place = 0; place < 21; place++) expect(guess(`place ${place}`)).toBe(0);
    expect(guess("one more")).toBe(500);
  });
});
