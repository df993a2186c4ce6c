import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "@jest/globals";
import { formatSchemas } from "./jsonSchema";

// `npm run schemas` writes these files; a change to a format must be published with it.
test.each(Object.entries(formatSchemas()))("docs/formats publishes %s as it is", (name, schema) => {
  const published = readFileSync(join(process.cwd(), "docs", "formats", `${name}.schema.json`), "utf8");
  expect(JSON.parse(published)).toEqual(JSON.parse(JSON.stringify(schema)));
});
