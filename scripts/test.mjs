// npm test: installs what is missing, Chromium too, then types, lint, unit, build and end-to-end tests.
import { existsSync } from "node:fs";
import { installPackages, run, runTool } from "./install.mjs";

function installChromium() {
  if (existsSync("/usr/bin/chromium")) return;
  process.stdout.write("Installing Chromium from Debian's packages for the end-to-end tests.\n");
  const root = process.getuid?.() === 0;
  const apt = (args) => run(root ? "apt-get" : "sudo", root ? args : ["apt-get", ...args]);
  apt(["update"]);
  apt(["install", "-y", "--no-install-recommends", "chromium"]);
}

function step(title, work) {
  process.stdout.write(`\n== ${title}\n`);
  const began = performance.now();
  work();
  process.stdout.write(`   ${title}: ${((performance.now() - began) / 1000).toFixed(1)} s\n`);
}

installPackages();
installChromium();
const jest = [
  "--experimental-vm-modules",
  "--disable-warning=ExperimentalWarning",
  "node_modules/jest/bin/jest.js",
];
step("types", () => {
  runTool("@react-router/dev/bin.js", ["typegen"]);
  runTool("typescript/bin/tsc", ["--noEmit"]);
  runTool("typescript/bin/tsc", ["--noEmit", "-p", "core/tsconfig.json"]);
});
step("lint", () => {
  runTool("@biomejs/biome/bin/biome", ["check", "."]);
  runTool("eslint/bin/eslint.js", ["--max-warnings", "0", "."]);
});
step("unit", () => run(process.execPath, jest));
const { build } = await import("./build.mjs");
process.stdout.write("\n== build\n");
await build();
step("end-to-end", () => runTool("@playwright/test/cli.js", ["test"]));
process.stdout.write("\nAll checks passed.\n");
