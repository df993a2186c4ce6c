import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

/** The checkout's own folder. */
export const root = dirname(dirname(fileURLToPath(import.meta.url)));

function filesBelow(path) {
  if (!statSync(path).isDirectory()) return [path];
  return readdirSync(path)
    .sort()
    .flatMap((name) => filesBelow(join(path, name)));
}

/** A fingerprint of files and folders by content. */
export function fingerprint(paths) {
  const hash = createHash("sha256");
  for (const path of paths.map((name) => join(root, name)).filter(existsSync)) {
    for (const file of filesBelow(path)) {
      hash.update(file.slice(root.length)).update("\0").update(readFileSync(file)).update("\0");
    }
  }
  return hash.digest("hex");
}

const stampFile = (name) => join(root, ".cache", `${name}.stamp`);

/** True if a step's inputs are unchanged since it last succeeded. */
export function isFresh(name, mark) {
  return existsSync(stampFile(name)) && readFileSync(stampFile(name), "utf8") === mark;
}

/** Records that a step succeeded with these inputs. */
export function markFresh(name, mark) {
  mkdirSync(join(root, ".cache"), { recursive: true });
  writeFileSync(stampFile(name), mark);
}
