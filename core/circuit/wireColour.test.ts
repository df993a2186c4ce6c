import { describe, expect, test } from "@jest/globals";
import { colourNames, colourStripes, colourWords, wireColour } from "./wireColour";

describe("wire colours are IEC 60757 letter codes", () => {
  // IEC 60757 (letter codes for colours), rows from memory: BK black, BN brown, RD red, OG orange, YE yellow,
  // GN green, BU blue, VT violet, GY grey, WH white, PK pink, TQ turquoise.
  test.each([
    ["BK", "black"],
    ["BN", "brown"],
    ["RD", "red"],
    ["OG", "orange"],
    ["YE", "yellow"],
    ["GN", "green"],
    ["BU", "blue"],
    ["VT", "violet"],
    ["GY", "grey"],
    ["WH", "white"],
    ["PK", "pink"],
    ["TQ", "turquoise"],
  ])("%s is %s", (code, name) => {
    expect(wireColour.safeParse(code).success).toBe(true);
    expect(colourWords(code)).toBe(name);
  });

  test("the table has no other codes", () => expect(Object.keys(colourNames)).toHaveLength(12));

  test("a tracer follows a slash", () => {
    expect(colourStripes("BK/YE")).toEqual({ base: "BK", tracer: "YE" });
    expect(colourStripes("RD")).toEqual({ base: "RD", tracer: null });
    expect(colourWords("GN/WH")).toBe("green/white");
  });

  test.each(["", "bk", "BLACK", "BK/", "/BK", "BK/YE/RD", "BK YE", " BK", "BK\n"])(
    "%j is refused",
    (text) => {
      const parsed = wireColour.safeParse(text);
      expect(parsed.success).toBe(false);
      if (!parsed.success)
        expect(parsed.error.issues[0]?.message).toMatch(/IEC 60757 codes such as BK or BK\/YE/);
    },
  );
});
