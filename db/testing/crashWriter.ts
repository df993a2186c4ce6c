// Writes readings into the shop's database in parallel and reports each one that is on disk, until it is killed.
import { writeSync } from "node:fs";
import { closeDatabase, database } from "../database.server";
import { addReading } from "../repositories/readings.server";

const [first = "0", count = "1000"] = process.argv.slice(2);
await database();
writeSync(1, "ready\n");
await Promise.all(
  Array.from({ length: Number(count) }, async (_, i) => {
    const id = `crash-${Number(first) + i}`;
    const takenAt = new Date();
    await addReading({ id, jobId: 6, reading: { test: "look", at: "X5", seen: "clean" }, takenAt });
    writeSync(1, `${id}\n`);
  }),
);
await closeDatabase();
