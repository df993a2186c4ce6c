// Builds the application and the command line, when a source changed since they were last built.
import { existsSync } from "node:fs";
import { basename, join } from "node:path";
import { pathToFileURL } from "node:url";
import { bundle } from "./bundle.mjs";
import { bundleCli } from "./bundle-cli.mjs";
import { fingerprint, isFresh, markFresh, root } from "./freshness.mjs";
import { runTool } from "./install.mjs";

const sources = [
  "app",
  "core",
  "words",
  "db",
  "server",
  "public",
  "package-lock.json",
  "vite.config.ts",
  "react-router.config.ts",
];

/** Brings the build up to date; does nothing when it is. */
export async function build() {
  const mark = fingerprint(sources);
  const built = existsSync(join(root, "build", "server", "index.js"));
  if (!built || !isFresh("build", mark)) {
    runTool("@react-router/dev/bin.js", ["build"], { env: { ...process.env, NODE_ENV: "production" } });
    const workers = [
      "engine/engineWorker",
      "seen/seenWorker",
      "sheet/layoutWorker",
      "importing/importWorker",
    ];
    for (const worker of workers)
      await bundle(`app/${worker}.ts`, join(root, "build", "server", `${basename(worker)}.mjs`));
    markFresh("build", mark);
  }
  await bundleCli();
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) await build();
