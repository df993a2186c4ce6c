// Contrast of the tokens that mean something, by WCAG 2.2's formula of relative luminance (success criterion 1.4.11: 3 to 1).
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "@jest/globals";

const css = readFileSync(join(process.cwd(), "app", "styles", "app.css"), "utf8");

/** A token's colour by day and by night. */
function token(name: string): readonly [string, string] {
  const [, day = "", night = ""] =
    new RegExp(`--${name}: light-dark\\((#[0-9a-f]{6}), (#[0-9a-f]{6})\\)`).exec(css) ?? [];
  return [day, night];
}

function luminance(hex: string): number {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => {
    const share = Number.parseInt(hex.slice(at, at + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

function contrast(one: string, other: string): number {
  const [dark = 0, light = 0] = [luminance(one), luminance(other)].sort((a, b) => a - b);
  return (light + 0.05) / (dark + 0.05);
}

test("black on white is 21 to 1, as the standard says", () =>
  expect(contrast("#000000", "#ffffff")).toBeCloseTo(21, 5));

// Every wire is drawn with an edge line, whatever its own colour.
test.each(["edge", "ink", "soft", "feed", "ground", "doubt", "danger", "good"])(
  "%s stands out from the drawing's paper by 3 to 1, by day and by night",
  (name) => {
    const [card, own] = [token("card"), token(name)];
    expect(contrast(own[0], card[0])).toBeGreaterThan(3);
    expect(contrast(own[1], card[1])).toBeGreaterThan(3);
  },
);
