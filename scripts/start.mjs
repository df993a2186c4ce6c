// npm start: installs if needed, builds if needed, then migrates, loads the demo into an empty database and serves.
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { root } from "./freshness.mjs";
import { installPackages } from "./install.mjs";

installPackages();
const { build } = await import("./build.mjs");
await build();
process.env.NODE_ENV = "production";
process.env.AIRWAY_DATA ??= join(root, "data");
const { start } = await import(pathToFileURL(join(root, "build", "server", "index.js")).href);
await start({ root });
