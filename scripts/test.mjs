// npm test: installs what is missing, Chromium too, then types, layers, lint, spelling, unit, build and end-to-end tests.
import { existsSync } from "node:fs";
import { installPackages, run, runTool, runToolAside } from "./install.mjs";

function installChromium() {
  if (existsSync("/usr/bin/chromium")) return;
  process.stdout.write("Installing Chromium from Debian's packages for the end-to-end tests.\n");
  const root = process.getuid?.() === 0;
  const apt = (args) => run(root ? "apt-get" : "sudo", root ? args : ["apt-get", ...args]);
  apt(["update"]);
  apt(["install", "-y", "--no-install-recommends", "chromium"]);
}

async function step(title, work) {
  process.stdout.write(`\n== ${title}\n`);
  const began = performance.now();
  await work();
  process.stdout.write(`   ${title}: ${((performance.now() - began) / 1000).toFixed(1)} s\n`);
}

/** Runs lists of tools side by side, each list in order; if one failed, stops everything once all have ended. */
async function together(...lists) {
  let failed = false;
  const inOrder = async (tools) => {
    for (const [tool, ...args] of tools) {
      const { ok, printed } = await runToolAside(tool, args);
      if (!ok) {
        process.stdout.write(`${printed}\n${tool} ${args.join(" ")} failed\n`);
        failed = true;
        return;
      }
    }
  };
  await Promise.all(lists.map(inOrder));
  if (failed) process.exit(1);
}

const folders = ["app", "benchmarks", "cli", "core", "db", "server", "words"];

installPackages();
installChromium();
runTool("@react-router/dev/bin.js", ["typegen"]);
await step("types, layers and lint", () =>
  together(
    [["eslint/bin/eslint.js", "--max-warnings", "0", "."]],
    [
      ["@biomejs/biome/bin/biome", "check", "."],
      ["cspell/bin.mjs", "lint", "--no-progress", "--quiet"],
      ["dependency-cruiser/bin/dependency-cruise.mjs", "--config", ".dependency-cruiser.mjs", ...folders],
      ["knip/bin/knip.js", "--production", "--include", "files,exports,types,dependencies"],
      ["typescript/bin/tsc", "--noEmit"],
      ["typescript/bin/tsc", "--noEmit", "-p", "core/tsconfig.json"],
    ],
  ),
);
await step("unit", () =>
  run(process.execPath, [
    "--experimental-vm-modules",
    "--disable-warning=ExperimentalWarning",
    "node_modules/jest/bin/jest.js",
  ]),
);
const { build } = await import("./build.mjs");
await step("build", build);
await step("end-to-end", () => runTool("@playwright/test/cli.js", ["test"]));
process.stdout.write("\nAll checks passed.\n");
