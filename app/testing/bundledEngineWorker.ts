import { join } from "node:path";
import { build } from "esbuild";

/** Bundles the thread that compiles circuits into a folder, as the build does; resolves with its file. */
export async function bundledEngineWorker(folder: string): Promise<string> {
  const outfile = join(folder, "engineWorker.mjs");
  await build({
    entryPoints: ["app/engine/engineWorker.ts"],
    outfile,
    bundle: true,
    platform: "node",
    format: "esm",
    alias: { "@core": join(process.cwd(), "core"), "@words": join(process.cwd(), "words") },
    logLevel: "error",
  });
  return outfile;
}
