import { bundleContents, bundleFile, type ShelfBundle } from "@core/formats/shelfBundle";
import { database } from "@db/database.server";
import { circuitNotesOf, insertCircuitNote } from "@db/repositories/circuitNotes.server";
import { addCircuit, findCircuit, listCircuits } from "@db/repositories/circuits.server";
import { strToU8, zipSync } from "fflate";
import { randomId } from "../text/randomId";
import { previewImport } from "./importCircuit.server";
import type { Bundled, Read } from "./readBundle.server";

/** The whole shelf as a zip: every circuit's newest version, and its notes. */
export async function shelfBundle(): Promise<Uint8Array> {
  const files: Record<string, Uint8Array> = {};
  const circuits: ShelfBundle["circuits"] = [];
  for (const { rowId, shelfId } of await listCircuits()) {
    const circuit = await findCircuit(rowId);
    if (!circuit) continue;
    const notes = (await circuitNotesOf(shelfId)).flatMap(({ words, struckAt }) => (struckAt ? [] : [words]));
    circuits.push({ id: shelfId, ...(notes.length > 0 ? { notes } : {}) });
    files[bundleFile(shelfId)] = strToU8(`${JSON.stringify(circuit, null, 2)}\n`);
  }
  const contents: ShelfBundle = { format: "airway-shelf", version: 1, circuits };
  return zipSync({ [bundleContents]: strToU8(`${JSON.stringify(contents, null, 2)}\n`), ...files });
}

/** What importing a bundle would do to one circuit. */
export interface BundleLine {
  readonly shelfId: string;
  readonly title: string;
  /** The version it would become; null if the shelf has the same content already. */
  readonly version: number | null;
  readonly differs: number;
  readonly newNotes: number;
}

async function linesOf(bundled: readonly Bundled[]): Promise<Read<(BundleLine & Bundled)[]>> {
  const lines: (BundleLine & Bundled)[] = [];
  for (const { circuit, notes } of bundled) {
    const preview = await previewImport(circuit);
    if ("problems" in preview)
      return { problems: preview.problems.map((words) => `${bundleFile(circuit.id)}: ${words}`) };
    const { shelfId, title, version, changes } = preview.value;
    const known = new Set((await circuitNotesOf(shelfId)).map(({ words }) => words));
    const fresh = notes.filter((words) => !known.has(words));
    lines.push({
      shelfId,
      title,
      version: changes?.length === 0 ? null : version,
      differs: changes?.length ?? 0,
      newNotes: fresh.length,
      circuit,
      notes: fresh,
    });
  }
  return { value: lines };
}

/** What a bundle would change, line by line. */
export async function previewBundle(bundled: readonly Bundled[]): Promise<Read<BundleLine[]>> {
  const lines = await linesOf(bundled);
  if ("problems" in lines) return lines;
  return {
    value: lines.value.map(({ shelfId, title, version, differs, newNotes }) => ({
      shelfId,
      title,
      version,
      differs,
      newNotes,
    })),
  };
}

/** Imports a bundle, all of it or nothing. */
export async function storeBundle(bundled: readonly Bundled[]): Promise<Read<{ stored: number }>> {
  const lines = await linesOf(bundled);
  if ("problems" in lines) return lines;
  const store = await database();
  await store.write(async (transaction) => {
    for (const { shelfId, circuit, version, notes } of lines.value) {
      if (version !== null) await addCircuit(circuit, transaction);
      for (const words of notes)
        await insertCircuitNote(shelfId, { id: randomId(), words, takenAt: new Date() }, transaction);
    }
  });
  return { value: { stored: lines.value.filter(({ version }) => version !== null).length } };
}
