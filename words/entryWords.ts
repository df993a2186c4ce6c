import { parseTest, type Test } from "@core/predict/reading";
import { testText } from "./tests/testText";

/** The test in a form field; null where there is none. */
function testIn(field: string): Test | null {
  try {
    return parseTest(JSON.parse(field));
  } catch {
    return null;
  }
}

/** An entry in a few words, for the list of what waits: what was looked at and what came of it. */
export function entryWords(fields: Readonly<Record<string, string>>): string {
  switch (fields.intent) {
    case "reading": {
      const result = fields.noEnd ? "no end" : (fields.seen ?? fields.about ?? fields.value ?? "");
      const test = testIn(fields.look ?? "");
      return test ? `${testText(test)}: ${result}` : result;
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
