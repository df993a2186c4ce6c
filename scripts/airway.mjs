// The airway command: rebuilds its bundle if a source file changed, then runs it.
import { existsSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { bundleCli, cliBundle } from "./bundle-cli.mjs";
import { root } from "./freshness.mjs";

if (!existsSync(join(root, "node_modules", "esbuild"))) {
  process.stderr.write("airway: nothing is installed yet; run `npm start` or `npm ci` first\n");
  process.exit(2);
}
process.env.AIRWAY_ROOT ??= root;
await bundleCli();
await import(pathToFileURL(cliBundle).href);
