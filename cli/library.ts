import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { parseCircuit } from "@core/circuit/parseCircuit";
import type { CircuitLibrary } from "@core/formats/library";

/** The shipped circuits of the checkout. */
export function shippedCircuits(root: string): CircuitLibrary {
  return (id) => {
    const folder = join(root, "demo", "circuits");
    for (const file of readdirSync(folder).filter((name) => name.endsWith(".json"))) {
      const parsed = parseCircuit(JSON.parse(readFileSync(join(folder, file), "utf8")));
      if (parsed.ok && parsed.value.id === id) return parsed.value;
    }
    return null;
  };
}
