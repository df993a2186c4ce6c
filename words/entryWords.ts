import type { Test } from "@core/predict/reading";
import { testText } from "@core/predict/readingText";

/** An entry in a few words, for the list of what waits: what was looked at and what came of it. */
export function entryWords(fields: Readonly<Record<string, string>>): string {
  switch (fields.intent) {
    case "reading": {
      const result = fields.noEnd ? "no end" : (fields.seen ?? fields.about ?? fields.value ?? "");
      try {
        return `${testText(JSON.parse(fields.look ?? "") as Test)}: ${result}`;
      } catch {
        return result;
      }
    }
    case "own-reading":
      return `${fields.test} ${[fields.first, fields.second, fields.at].filter(Boolean).join(", ")}: ${fields.result}`;
    case "strike":
      return fields.struck === "yes" ? "a reading struck out" : "a reading put back";
    case "cautions":
      return "cautions read";
    case "school":
      return "another way to begin";
    default:
      return "an entry";
  }
}
