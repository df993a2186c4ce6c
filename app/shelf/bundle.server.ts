import type { Circuit } from "@core/circuit/circuit";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { bundleContents, bundleFile, type ShelfBundle, shelfBundleSchema } from "@core/formats/shelfBundle";
import { problemsOf, problemText } from "@core/problem/problem";
import { database } from "@db/database.server";
import { circuitNotesOf, insertCircuitNote } from "@db/repositories/circuitNotes.server";
import { addCircuit, findCircuit, listCircuits } from "@db/repositories/circuits.server";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { randomId } from "../text/randomId";
import { previewImport } from "./importCircuit.server";

const mostFiles = 5001;
const mostFileBytes = 1_000_000;
const mostBytes = 80_000_000;
const mostProblems = 12;

/** The whole shelf as a zip: every circuit's newest version, and what is noted of it. */
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

interface Bundled {
  readonly circuit: Circuit;
  readonly notes: readonly string[];
}

type Read<T> = { readonly value: T } | { readonly problems: readonly string[] };

function unzipped(bytes: Uint8Array): Read<Record<string, Uint8Array>> {
  let files = 0;
  let total = 0;
  let tooMuch: string | null = null;
  try {
    const value = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        files += 1;
        total += originalSize;
        if (originalSize > mostFileBytes) tooMuch ??= `${name}: larger than ${mostFileBytes / 1000} kB`;
        else if (files > mostFiles || total > mostBytes) tooMuch ??= "more than a bundle holds";
        return tooMuch === null && !name.endsWith("/");
      },
    });
    return tooMuch === null ? { value } : { problems: [tooMuch] };
  } catch (thrown) {
    return { problems: [`This is no zip: ${(thrown as Error).message}`] };
  }
}

function jsonOf(name: string, bytes: Uint8Array | undefined): Read<unknown> {
  if (!bytes) return { problems: [`${name}: it is not in the bundle`] };
  try {
    return { value: JSON.parse(strFromU8(bytes)) };
  } catch (thrown) {
    return { problems: [`${name}: this is no JSON: ${(thrown as Error).message}`] };
  }
}

/** The circuits a bundle holds; one that does not fit refuses the whole, by file and place. */
export function readBundle(bytes: Uint8Array): Read<readonly Bundled[]> {
  const files = unzipped(bytes);
  if ("problems" in files) return files;
  const json = jsonOf(bundleContents, files.value[bundleContents]);
  if ("problems" in json) return json;
  const contents = shelfBundleSchema.safeParse(json.value);
  if (!contents.success)
    return {
      problems: problemsOf(contents.error, json.value)
        .slice(0, mostProblems)
        .map((problem) => `${bundleContents}: ${problemText(problem)}`),
    };
  const problems: string[] = [];
  const seen = new Set<string>();
  const bundled = contents.data.circuits.flatMap(({ id, notes = [] }): Bundled[] => {
    const name = bundleFile(id);
    if (seen.has(id)) problems.push(`${bundleContents}: ${id} is listed twice`);
    seen.add(id);
    const own = jsonOf(name, files.value[name]);
    if ("problems" in own) {
      problems.push(...own.problems);
      return [];
    }
    const parsed = parseCircuit(own.value);
    if (!parsed.ok) {
      problems.push(...parsed.problems.slice(0, 3).map((problem) => `${name}: ${problemText(problem)}`));
      return [];
    }
    if (parsed.value.id !== id) problems.push(`${name}: id: expected "${id}", got "${parsed.value.id}"`);
    return [{ circuit: parsed.value, notes }];
  });
  return problems.length > 0 ? { problems: problems.slice(0, mostProblems) } : { value: bundled };
}

/** What bringing a bundle in would do to one circuit. */
export interface BundleLine {
  readonly shelfId: string;
  readonly title: string;
  /** The version it would become; null where the shelf says the same already. */
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
export async function previewBundle(bytes: Uint8Array): Promise<Read<BundleLine[]>> {
  const read = readBundle(bytes);
  if ("problems" in read) return read;
  const lines = await linesOf(read.value);
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

/** Brings a bundle in, all of it or nothing. */
export async function storeBundle(bytes: Uint8Array): Promise<Read<{ stored: number }>> {
  const read = readBundle(bytes);
  if ("problems" in read) return read;
  const lines = await linesOf(read.value);
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
