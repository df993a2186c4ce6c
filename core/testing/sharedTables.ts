import { createHash } from "node:crypto";
import { existsSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { deserialize, serialize } from "node:v8";
import type { CompiledCircuit } from "../predict/tables/compiledCircuit";
import type { TableParts } from "../predict/tables/setupTable";

/** Loads the tables of a circuit's usual set-ups if they were solved for the whole run, otherwise solves them. */
export function adoptSharedTables(compiled: CompiledCircuit): void {
  const tables = compiled.usualSetups().map((setup) => compiled.table(setup));
  const shared = process.env.AIRWAY_TEST_SHARED;
  const content = createHash("sha256").update(JSON.stringify(compiled.netlist.circuit)).digest("hex");
  const file = shared ? join(shared, `tables-${content}`) : null;
  if (file && existsSync(file)) {
    const parts = deserialize(readFileSync(file)) as TableParts[];
    for (const [index, table] of tables.entries()) table.adopt(parts[index] as TableParts);
    return;
  }
  for (const table of tables) table.complete();
  if (!file) return;
  // Suites run side by side. Each renames a whole file into place, and it does not matter which is last.
  const own = `${file}-${process.pid}`;
  writeFileSync(own, serialize(tables.map((table) => table.parts())));
  renameSync(own, file);
}
