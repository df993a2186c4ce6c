import { expect, test } from "@jest/globals";
import { typedFigure } from "./typedFigure";

test.each([
  ["12.3", 12.3],
  [" 12,3 ", 12.3],
  ["-0,5", -0.5],
  ["1e3", 1000],
  ["0", 0],
])("%j is read", (text, figure) => expect(typedFigure(text)).toBe(figure));

test.each(["", "  ", "a lot", "12 V", "1,234.5", "1e999", "Infinity"])("%j is not a figure", (text) =>
  expect(typedFigure(text)).toBeNaN(),
);
