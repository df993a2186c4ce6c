import { expect, test } from "@jest/globals";
import { boardGroup } from "./boardGroup";

test.each([
  ["probing", false, false, "to-test"],
  ["probing", false, true, "to-repair"],
  ["part-awaited", false, true, "part-awaited"],
  ["part-awaited", true, true, "to-repair"],
  ["proof-due", true, true, "to-check"],
  ["closed", true, true, "done"],
] as const)("%s, parts in %s, decided %s: %s", (stage, partsIn, decided, group) =>
  expect(boardGroup({ stage, partsIn, decided })).toBe(group),
);
