import { existsSync } from "node:fs";
import { join } from "node:path";
import { fingerprint, isFresh, markFresh, root } from "./freshness.mjs";

export const cliBundle = join(root, "build", "cli", "airway.mjs");

/** Bundles the command line into one file, so that it starts in the time Node itself takes. */
export async function bundleCli() {
  const mark = fingerprint(["core", "cli", "package-lock.json", "scripts/bundle-cli.mjs"]);
  if (existsSync(cliBundle) && isFresh("cli", mark)) return;
  const { build } = await import("esbuild");
  await build({
    entryPoints: [join(root, "cli", "airway.ts")],
    outfile: cliBundle,
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
  markFresh("cli", mark);
}
