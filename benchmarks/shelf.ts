// npm run bench:shelf: the shelf's list and search with a thousand circuits on it, in a data folder of its own.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { closeDatabase, database } from "@db/database.server";
import { shippedCircuits } from "@db/demoWorld.server";
import { addCircuit } from "@db/repositories/circuits.server";
import { loader } from "../app/routes/shelf";

const circuits = 1000;
const rounds = 40;
const folder = mkdtempSync(join(tmpdir(), "airway-shelf-bench-"));
process.env.AIRWAY_DATA = folder;
const store = await database();
const shipped = shippedCircuits(join(process.cwd(), "demo", "circuits"));
await store.write(async (transaction) => {
  for (let i = 0; i < circuits; i++) {
    const circuit = shipped[i % shipped.length];
    if (circuit)
      await addCircuit(
        { ...circuit, id: `${circuit.id}-${i}`, title: `${circuit.title}, shelf ${i}` },
        transaction,
      );
  }
});
for (const query of ["", "q=relay", "q=shelf+77", "control=linear&side=feed&speeds=4"]) {
  const times: number[] = [];
  let found = 0;
  for (let round = 0; round < rounds; round++) {
    const began = performance.now();
    const page = await loader({ request: new Request(`http://127.0.0.1/shelf?${query}`) } as never);
    times.push(performance.now() - began);
    found = page.lines.length;
  }
  times.sort((a, b) => a - b);
  const at = (share: number): string =>
    (times[Math.min(rounds - 1, Math.floor(share * rounds))] ?? 0).toFixed(1);
  process.stdout.write(
    `${query === "" ? "the whole list" : query}: ${found} of ${circuits}, median ${at(0.5)} ms, worst ${at(1)} ms\n`,
  );
}
await closeDatabase();
rmSync(folder, { recursive: true, force: true });
