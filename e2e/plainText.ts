import type { Page } from "@playwright/test";

/** Text that no screen should show, and why. */
const hardToRead: readonly (readonly [RegExp, string])[] = [
  [/\bundefined\b|\bNaN\b|\bnull\b|\[object /, "a value that is missing"],
  [/\d\.\d{6,}/, "a number that is not rounded"],
  [/\b[a-z]+\.\d+\.[a-zA-Z]+/, "a path into a file format"],
  [/\{"|"\}/, "JSON"],
  [/\bbits\b(?! per minute)/, "information in bits, outside Details"],
  [/\b\d+ to 1\b/, "odds as a ratio, outside Details"],
  [/× [\d.]+ \+ /, "a formula, outside Details"],
  [/[a-z]+-[a-z]+@[\d.]+|:(open|high|loose|tight)\b/, "a fault by its id"],
  [/\b(looks?(?! like)|humps|chopping|no end|struck|strike|heard)\b/i, "a word the glossary replaces"],
];

/**
 * What a page shows that a technician should not have to read, each with its surrounding text. Folded content is left
 * out.
 */
export async function hardToReadText(page: Page): Promise<string[]> {
  const text = await page.locator("body").innerText();
  return hardToRead.flatMap(([pattern, what]) => {
    const found = pattern.exec(text);
    if (!found) return [];
    const around = text.slice(Math.max(0, found.index - 30), found.index + 40).replaceAll("\n", " ");
    return [`${new URL(page.url()).pathname}: ${what}: …${around}…`];
  });
}
