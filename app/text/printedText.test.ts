import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { describe, expect, test } from "@jest/globals";
import PDFDocument from "pdfkit";
import { printedText } from "./printedText";

const { resolve } = createRequire(import.meta.url);
const font = readFileSync(
  resolve("@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff"),
);

/** Whether the font of the PDFs has every letter of a text, by the font's own tables. */
function isPrintable(text: string): boolean {
  const paper = new PDFDocument().font(font) as unknown as {
    _font: { font: { hasGlyphForCodePoint: (code: number) => boolean } };
  };
  return Array.from(text).every((letter) =>
    paper._font.font.hasGlyphForCodePoint(letter.codePointAt(0) ?? 0),
  );
}

describe("a text for a PDF", () => {
  test.each([
    ["4.7 Ω", "4.7 ohm"],
    ["č, š, ž", "c, s, z"],
    ["Ł, ó, ź, ő, Đ, đ", "L, ó, z, o, D, d"],
    ["ğ, ı", "g, ı"],
    ["Æ, ø, å, ï, œ", "Æ, ø, å, ï, œ"],
    ["e\u0301", "é"],
  ])("%s prints as %s", (text, printed) => {
    expect(printedText(text)).toBe(printed);
    expect(isPrintable(printed)).toBe(true);
  });

  // Unicode's blocks Latin-1 Supplement and Latin Extended-A, and the Romanian letters outside them.
  test("has only letters the font has, whatever European Latin letter it came from", () => {
    const letters = Array.from({ length: 0x180 - 0xa0 }, (_, at) => String.fromCodePoint(0xa0 + at));
    const missing = [...letters, "Ș", "ș", "Ț", "ț"].filter(
      (letter) => /\p{L}/u.test(letter) && !isPrintable(printedText(letter)),
    );
    expect(missing.join("")).toBe("");
  });
});
