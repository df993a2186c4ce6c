// Serves the build: migrates, loads the demo into an empty database and listens. `npm start` installs and builds
// first.
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { root } from "./freshness.mjs";

process.env.NODE_ENV = "production";
process.env.AIRWAY_DATA ??= join(root, "data");
process.env.AIRWAY_ROOT ??= root;
const { start } = await import(pathToFileURL(join(root, "build", "server", "index.js")).href);
await start({ root });
