import { describe, expect, test } from "@jest/globals";
import type { Closure } from "./closure";
import { secondLook } from "./secondLook";

const closure: Closure = {
  found: "motor shorted",
  fault: "M1:shorted-turns",
  parts: ["M1"],
  cause: "none",
  learn: true,
};

// The rules follow the shop's own wish; judgement, no source.
describe("a second look at an older closing", () => {
  test.each<[string, Parameters<typeof secondLook>, ReturnType<typeof secondLook>]>([
    [
      "keeps what the readings prove",
      [closure, true, ["M1:tight", "M1:shorted-turns"], false],
      { kind: "keeps" },
    ],
    ["keeps what no reading proves or disproves", [closure, true, [], false], { kind: "keeps" }],
    [
      "counts the proved fault instead",
      [closure, true, ["M1:bearing-dry", "M1:tight"], false],
      { kind: "teaches", fault: "M1:bearing-dry" },
    ],
    [
      "stops at a temporary repair",
      [{ ...closure, stopgap: "oiled" }, true, ["M1:bearing-dry"], false],
      { kind: "stops" },
    ],
    ["stops at temporary work", [closure, true, [], true], { kind: "stops" }],
    ["leaves alone what does not count", [closure, false, ["M1:tight"], true], { kind: "keeps" }],
    [
      "leaves alone what was asked line by line",
      [{ ...closure, findings: [] }, true, ["M1:tight"], true],
      { kind: "keeps" },
    ],
  ])("%s", (_, asked, told) => {
    expect(secondLook(...asked)).toEqual(told);
  });
});
