import { describe, expect, test } from "@jest/globals";
import { z } from "zod";
import { problemsOf, problemText, quoted } from "./problem";

const schema = z.strictObject({
  name: z.string().min(2).max(5),
  amps: z.number().positive().max(100),
  kind: z.enum(["fuse", "relay"]),
  pins: z.array(z.number()).min(1).max(2),
  part: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("wire"), metres: z.number() }),
    z.strictObject({ kind: z.literal("lamp"), watts: z.number() }),
  ]),
});
const good = { name: "abc", amps: 10, kind: "fuse", pins: [1], part: { kind: "wire", metres: 1 } };

function textsOf(change: Record<string, unknown>): string[] {
  const input = { ...good, ...change };
  const parsed = schema.safeParse(input);
  return parsed.success ? [] : problemsOf(parsed.error, input).map(problemText);
}

describe("problems name the place, what was expected and what came", () => {
  test("a correct one has none", () => expect(textsOf({})).toEqual([]));

  test.each([
    [{ amps: "ten" }, 'amps: expected number, got "ten"'],
    [{ amps: undefined }, "amps: expected number, got nothing"],
    [{ amps: null }, "amps: expected number, got null"],
    [{ amps: [1, 2] }, "amps: expected number, got a list of 2"],
    [{ amps: {} }, "amps: expected number, got an object"],
    [{ amps: 0 }, "amps: must be above 0, got 0"],
    [{ amps: 101 }, "amps: must be at most 100, got 101"],
    [{ name: "a" }, 'name: must be at least 2 characters, got "a"'],
    [{ name: "abcdef" }, 'name: must be at most 5 characters, got "abcdef"'],
    [{ kind: "lamp" }, 'kind: expected "fuse" or "relay", got "lamp"'],
    [{ pins: [] }, "pins: must be at least 1 entries, got a list of 0"],
    [{ pins: [1, 2, 3] }, "pins: must be at most 2 entries, got a list of 3"],
    [{ pins: [1, "2"] }, 'pins.1: expected number, got "2"'],
    [{ colour: "RD" }, ': unknown key "colour"'.slice(2)],
    [{ part: { kind: "coil" } }, 'part.kind: not a known kind: "coil", expected one of wire, lamp'],
    [{ part: { kind: "wire", metres: "3 m" } }, 'part.metres: expected number, got "3 m"'],
  ])("%j", (change, text) => expect(textsOf(change as Record<string, unknown>)).toEqual([text]));

  test("every problem is reported, not only the first", () => {
    expect(textsOf({ amps: -1, kind: "x", extra: 1 })).toHaveLength(3);
  });

  test("a union that fails reports the branch that matched furthest", () => {
    const either = z.union([z.strictObject({ a: z.number(), b: z.number() }), z.string()]);
    const parsed = either.safeParse({ a: 1, b: "two" });
    expect(parsed.success).toBe(false);
    if (!parsed.success)
      expect(problemsOf(parsed.error, { a: 1, b: "two" })[0]?.message).toMatch(/expected (number|string)/);
  });
});

describe("a value quoted back", () => {
  test("is short and on one line, whatever it was", () => {
    for (const value of ["x".repeat(5000), "line\nline\u0000\u001b[31m", "<script>", "\u2028"]) {
      const text = quoted(value);
      expect(text.length).toBeLessThan(80);
      expect(Array.from(text).every((letter) => (letter.codePointAt(0) ?? 0) >= 32)).toBe(true);
    }
  });

  test("never follows a prototype", () => {
    const parsed = z.strictObject({ toString: z.number() }).safeParse({});
    if (!parsed.success)
      expect(problemsOf(parsed.error, {})[0]?.message).toBe("expected number, got nothing");
    expect(parsed.success).toBe(false);
  });
});
