import { spawn, spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { join } from "node:path";
import { fingerprint, isFresh, markFresh, root } from "./freshness.mjs";

/** Runs a command in the checkout and ends everything if it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: "inherit", ...options });
  if (error || status !== 0) {
    process.stderr.write(`\n${command} ${args.join(" ")} failed${error ? `: ${error.message}` : ""}\n`);
    process.exit(status || 1);
  }
}

/** Runs one of the project's own tools beside others; resolves with whether it succeeded and its output. */
export function runToolAside(tool, args) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [join(root, "node_modules", tool), ...args], {
      cwd: root,
      stdio: ["ignore", "pipe", "pipe"],
    });
    let printed = "";
    for (const stream of [child.stdout, child.stderr])
      stream.on("data", (chunk) => {
        printed += chunk;
      });
    child.once("close", (status) => resolve({ ok: status === 0, printed }));
  });
}

/** Runs one of the project's own tools. */
export function runTool(tool, args, options) {
  run(process.execPath, [join(root, "node_modules", tool), ...args], options);
}

/** Installs the locked packages, once for each lock file. */
export function installPackages() {
  const mark = fingerprint(["package-lock.json"]);
  if (existsSync(join(root, "node_modules", "react-router")) && isFresh("install", mark)) return;
  process.stdout.write("Installing packages; the first time takes a few minutes.\n");
  run("npm", ["ci", "--no-audit", "--no-fund"]);
  markFresh("install", mark);
}
