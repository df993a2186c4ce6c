import type { Circuit } from "@core/circuit/circuit";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { bundleContents, bundleFile, shelfBundleSchema } from "@core/formats/shelfBundle";
import { problemsOf, problemText } from "@core/problem/problem";
import { unzip, type ZipLimits } from "@db/keeping/unzip.server";
import { strFromU8 } from "fflate";

const zipLimits: ZipLimits = { files: 5001, bytes: 80_000_000, fileBytes: 1_000_000 };
const mostProblems = 12;

/** A circuit of a bundle, with its notes. */
export interface Bundled {
  readonly circuit: Circuit;
  readonly notes: readonly string[];
}

export type Read<T> = { readonly value: T } | { readonly problems: readonly string[] };

function jsonOf(name: string, bytes: Uint8Array | undefined): Read<unknown> {
  if (!bytes) return { problems: [`${name} is missing from the bundle`] };
  try {
    return { value: JSON.parse(strFromU8(bytes)) };
  } catch (thrown) {
    return { problems: [`${name}: not valid JSON: ${(thrown as Error).message}`] };
  }
}

/** The circuits in a bundle; if one is not valid, the whole bundle is refused, by file and path. */
export function readBundle(bytes: Uint8Array): Read<readonly Bundled[]> {
  const files = unzip(bytes, zipLimits);
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
