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
    alias: { "@core": join(root, "core"), "@db": join(root, "db"), "@words": join(root, "words") },
    // Packages with native code, or that find their drivers themselves, are loaded from node_modules.
    external: ["sequelize", "sqlite3", "umzug"],
    banner: {
      js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
    },
    logLevel: "error",
  });
}
