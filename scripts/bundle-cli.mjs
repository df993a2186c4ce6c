import { existsSync } from "node:fs";
import { join } from "node:path";
import { bundle } from "./bundle.mjs";
import { fingerprint, isFresh, markFresh, root } from "./freshness.mjs";

export const cliBundle = join(root, "build", "cli", "airway.mjs");

/** Bundles the command line into one file, so that it starts in the time Node itself takes. */
export async function bundleCli() {
  const mark = fingerprint([
    "core",
    "words",
    "cli",
    "db/people",
    "db/dataFolder.server.ts",
    "package-lock.json",
    "scripts/bundle-cli.mjs",
  ]);
  if (existsSync(cliBundle) && isFresh("cli", mark)) return;
  await bundle("cli/airway.ts", cliBundle);
  markFresh("cli", mark);
}
