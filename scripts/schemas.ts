// npm run schemas: writes the formats' JSON Schema to docs/formats.
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { formatSchemas } from "../core/formats/jsonSchema";

for (const [name, schema] of Object.entries(formatSchemas())) {
  writeFileSync(join("docs", "formats", `${name}.schema.json`), `${JSON.stringify(schema, null, 2)}\n`);
}
