// npm run bench [name]: bundles benchmarks/NAME.ts and runs it; `engine` by default.
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { bundle } from "../scripts/bundle.mjs";
import { root } from "../scripts/freshness.mjs";

const name = process.argv[2] ?? "engine";
const outfile = join(root, "build", "bench", `${name}.mjs`);
await bundle(`benchmarks/${name}.ts`, outfile);
process.env.AIRWAY_ROOT ??= root;
process.env.AIRWAY_BENCH_FILE = outfile;
await import(pathToFileURL(outfile).href);
