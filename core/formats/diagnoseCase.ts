import type { Circuit } from "../circuit/circuit";
import { type DiagnoseOptions, type Diagnosis, diagnose } from "../diagnose/diagnose";
import type { CircuitCache } from "../predict/tables/circuitCache";
import { type Parsed, refused } from "../problem/problem";
import { parseCase } from "./case";
import type { CircuitLibrary } from "./library";

/** A case's diagnosis, and its circuit. */
export interface DiagnosedCase {
  readonly circuit: Circuit;
  readonly diagnosis: Diagnosis;
}

/** Reads an `airway-case` and diagnoses it; used by `diagnose` and `lines`. */
export function diagnoseCase(
  input: unknown,
  library: CircuitLibrary,
  cache: CircuitCache,
  options: Pick<DiagnoseOptions, "explainAll" | "plan"> = {},
): Parsed<DiagnosedCase> {
  const found = parseCase(input, library);
  if (!found.ok) return found;
  const compiled = cache.compile(found.value.circuit);
  if (!compiled.ok)
    return refused(
      compiled.problems.map(({ code, path, message }) => ({ code, path: `circuit.${path}`, message })),
    );
  const { id, tools, school: strategy, readings, costs, counts, repairs, earlier } = found.value;
  const diagnosis = diagnose(compiled.value, readings, {
    id,
    tools,
    school: strategy,
    costs,
    counts,
    repairs,
    earlier,
    ...options,
  });
  if (!diagnosis.ok) return diagnosis;
  return { ok: true, value: { circuit: found.value.circuit, diagnosis: diagnosis.value } };
}
