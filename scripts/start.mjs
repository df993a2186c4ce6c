// npm start: installs if needed, builds if needed, then migrates, loads the demo into an empty database and serves.
import { installPackages } from "./install.mjs";

installPackages();
const { build } = await import("./build.mjs");
await build();
await import("./serve.mjs");
