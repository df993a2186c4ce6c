import { parseTest, type Test } from "@core/predict/reading";
import { testText } from "./tests/testText";

/** The test in a form field; null if there is none. */
function testIn(field: string): Test | null {
  try {
    return parseTest(JSON.parse(field));
  } catch {
    return null;
  }
}

/** An entry in a few words for the list of waiting entries: the test and its result. */
export function entryWords(fields: Readonly<Record<string, string>>): string {
  switch (fields.intent) {
    case "reading": {
      const result = fields.noEnd ? "OL" : (fields.seen ?? fields.about ?? fields.value ?? "");
      const test = testIn(fields.look ?? "");
      return test ? `${testText(null, test)}: ${result}` : result;
    }
    case "own-reading":
      return `${fields.test} ${[fields.first, fields.second, fields.at].filter(Boolean).join(", ")}: ${fields.result}`;
    case "strike":
      return fields.struck === "yes" ? "a reading deleted" : "a reading restored";
    case "cautions":
      return "cautions read";
    case "school":
      return "another strategy";
    default:
      return "an entry";
  }
}
