// npm run bench [name]: bundles bench/NAME.ts and runs it; `engine` unless named.
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { build } from "esbuild";
import { root } from "./freshness.mjs";

const name = process.argv[2] ?? "engine";
const outfile = join(root, "build", "bench", `${name}.mjs`);
await build({
  entryPoints: [join(root, "bench", `${name}.ts`)],
  outfile,
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  alias: { "@core": join(root, "core") },
  banner: {
    js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);",
  },
  logLevel: "error",
});
process.env.AIRWAY_ROOT ??= root;
process.env.AIRWAY_BENCH_FILE = outfile;
await import(pathToFileURL(outfile).href);
