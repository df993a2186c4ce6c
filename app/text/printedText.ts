/** What is printed for letters that cannot be split into a plain letter and a mark. */
const plainLetters: Readonly<Record<string, string>> = {
  Ω: "ohm",
  Đ: "D",
  đ: "d",
  Ħ: "H",
  ħ: "h",
  Ł: "L",
  ł: "l",
  Ŧ: "T",
  ŧ: "t",
  Ŋ: "N",
  ŋ: "n",
  ŉ: "'n",
  ĸ: "k",
  "\u00b5": "u",
};

/** Letters of Latin alphabets beyond the font's: those of Western Europe are in it, with ı, Œ and œ. */
const beyondTheFont = /[Ω\u00b5Ā-\u024f\u1e00-\u1eff]/gu;
const inTheFont = new Set("ıŒœ");

/**
 * A text for a PDF. What the font does not have would print as an empty box: ohms are written out, and letters lose
 * their marks (`č` prints as `c`). Letters that are not Latin stay boxes.
 */
export const printedText = (text: string): string =>
  text
    .normalize("NFC")
    .replaceAll(beyondTheFont, (letter) =>
      inTheFont.has(letter)
        ? letter
        : (plainLetters[letter] ?? letter.normalize("NFKD").replaceAll(/\p{M}/gu, "")),
    );
