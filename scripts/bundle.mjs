import { join } from "node:path";
import { root } from "./freshness.mjs";

/** Bundles one entry for Node into one file, so that it starts in the time Node itself takes. */
export async function bundle(entry, outfile) {
  const { build } = await import("esbuild");
  await build({
    entryPoints: [join(root, entry)],
    outfile,
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    alias: { "@core": join(root, "core"), "@words": join(root, "words") },
    banner: {
      js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);",
    },
    logLevel: "error",
  });
}
