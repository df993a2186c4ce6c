// Holds a data folder until it is killed, and prints its process id.
import { lockDataFolder } from "../dataLock.server";

const [folder = ""] = process.argv.slice(2);
await lockDataFolder(folder, {
  pid: process.pid,
  address: "http://127.0.0.1:9/",
  since: new Date().toISOString(),
});
process.stdout.write(String(process.pid));
setInterval(() => undefined, 60_000);
