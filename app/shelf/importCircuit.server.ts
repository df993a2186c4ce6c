import type { Circuit } from "@core/circuit/circuit";
import { type CircuitChange, circuitChanges } from "@core/circuit/circuitChange";
import { circuitShape } from "@core/circuit/circuitShape";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { withWireList } from "@core/formats/wireList";
import { type Problem, problemText } from "@core/problem/problem";
import { buildNetlist } from "@core/solve/buildNetlist";
import { circuitFamily } from "@core/solve/checks/circuitFamily";
import { circuitFindings } from "@core/solve/checks/circuitFinding";
import { database } from "@db/database.server";
import { addCircuit, findCircuit, listCircuits, versionsOf } from "@db/repositories/circuits.server";
import { circuitFindingWords, familyText } from "@words/circuitWords";
import Papa from "papaparse";

/** What an import would do. */
export interface ImportPreview {
  readonly shelfId: string;
  readonly title: string;
  readonly family: string;
  /** The version it would become. */
  readonly version: number;
  /** Compared with the newest version on the shelf; null for a circuit that is new to it. */
  readonly changes: readonly CircuitChange[] | null;
  readonly findings: ReturnType<typeof circuitFindingWords>;
  /** Circuits of the same shape under other names. */
  readonly twins: readonly { readonly shelfId: string; readonly title: string }[];
}

type Read<T> = { readonly value: T } | { readonly problems: readonly string[] };

const mostProblems = 12;
const inWords = (problems: readonly Problem[]): { problems: string[] } => ({
  problems: problems.slice(0, mostProblems).map(problemText),
});

/**
 * The circuit in a text: an `airway-circuit` file, or a wire list for a circuit on the shelf.
 * @param onto the circuit a wire list is for
 */
export function circuitFrom(text: string, onto: Circuit | null): Read<Circuit> {
  if (/^\s*[{[]/.test(text)) {
    let input: unknown;
    try {
      input = JSON.parse(text);
    } catch (thrown) {
      return { problems: [`This is not valid JSON: ${(thrown as Error).message}`] };
    }
    const parsed = parseCircuit(input);
    return parsed.ok ? { value: parsed.value } : inWords(parsed.problems);
  }
  if (!onto)
    return {
      problems: ["Expected an airway-circuit file. Import a wire list on the page of its circuit."],
    };
  const rows = Papa.parse<string[]>(text.trim(), { skipEmptyLines: false });
  const read = withWireList(onto, rows.data);
  return read.ok ? { value: read.value } : inWords(read.problems);
}

/** What storing a circuit would do; one that cannot be solved is refused. */
export async function previewImport(circuit: Circuit): Promise<Read<ImportPreview>> {
  const netlist = buildNetlist(circuit, { lumpWires: true });
  if (!netlist.ok) return inWords(netlist.problems);
  const [newest] = await versionsOf(circuit.id);
  const before = newest ? await findCircuit(newest.rowId) : null;
  const shape = circuitShape(circuit);
  const twins = (await listCircuits()).filter(
    ({ about, shelfId }) => about?.shape === shape && shelfId !== circuit.id,
  );
  return {
    value: {
      shelfId: circuit.id,
      title: circuit.title,
      family: familyText(circuitFamily(netlist.value)),
      version: (newest?.version ?? 0) + 1,
      changes: before ? circuitChanges(before, circuit) : null,
      findings: circuitFindingWords(circuitFindings(netlist.value)),
      twins: twins.map(({ shelfId, title }) => ({ shelfId, title })),
    },
  };
}

/** What the import form says after a circuit was sent, unless it was stored. */
type ImportOutcome = "stored" | { readonly preview?: ImportPreview; readonly problems?: readonly string[] };

/** Previews a circuit, or stores it; what keeps it from being stored is shown with its preview. */
export async function importOrPreview(
  circuit: Circuit,
  { store, anyway }: { readonly store: boolean; readonly anyway: boolean },
): Promise<ImportOutcome> {
  const preview = await previewImport(circuit);
  if ("problems" in preview) return preview;
  if (!store) return { preview: preview.value };
  const stored = await storeImport(circuit, anyway);
  return "problems" in stored ? { preview: preview.value, problems: stored.problems } : "stored";
}

/**
 * Stores a circuit as the next version of its id; one with the same content makes none.
 * @param anyway true if a user confirmed that it should be stored in spite of findings that are certainly wrong
 */
export async function storeImport(circuit: Circuit, anyway: boolean): Promise<Read<{ version: number }>> {
  const preview = await previewImport(circuit);
  if ("problems" in preview) return preview;
  const broken = preview.value.findings.filter(({ weight }) => weight === "wrong");
  if (broken.length > 0 && !anyway)
    return { problems: [...broken.map(({ message }) => message), "Or tick “Save it anyway”."] };
  const { version, changes } = preview.value;
  if (changes?.length === 0) return { value: { version: version - 1 } };
  const store = await database();
  const added = await store.write((transaction) => addCircuit(circuit, transaction));
  return { value: { version: added.version } };
}
