// Opens the database of a data folder, which upgrades it, and reports that; it is killed or runs out of disk
// meanwhile.
import { openDatabase } from "../database.server";
import { storageTrouble } from "../storageTrouble";

const [folder = ""] = process.argv.slice(2);
try {
  const store = await openDatabase(folder);
  await store.close();
  process.stdout.write("open");
} catch (thrown) {
  process.stdout.write(storageTrouble(thrown) ?? String(thrown));
  process.exitCode = 1;
}
