import { parsePlan } from "@core/access/plan";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { parseCase } from "@core/formats/case";
import type { CircuitLibrary } from "@core/formats/library";
import { isSeenCase, parseSeenCase } from "@core/formats/seenCase";
import { parsePart } from "@core/match/partDescription";
import { readingProblems } from "@core/predict/readingProblems";
import { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { type Parsed, quoted, refused } from "@core/problem/problem";
import { buildNetlist } from "@core/solve/buildNetlist";

interface Checked {
  readonly ok: true;
  readonly format: string;
  readonly id: string | null;
}

/** Whether a file is a complete, solvable circuit or case, and which. */
export function checkFile(input: unknown, library: CircuitLibrary): Parsed<Checked> {
  const format = typeof input === "object" && input !== null && "format" in input ? input.format : undefined;
  if (format === "airway-circuit") {
    const circuit = parseCircuit(input);
    if (!circuit.ok) return circuit;
    const netlist = buildNetlist(circuit.value);
    return netlist.ok ? { ok: true, value: { ok: true, format, id: circuit.value.id } } : netlist;
  }
  if (format === "airway-case") return checkCase(input, library);
  if (format === "airway-plan") {
    const plan = parsePlan(input);
    return plan.ok ? { ok: true, value: { ok: true, format, id: plan.value.id } } : plan;
  }
  if (format === "airway-part") {
    const part = parsePart(input);
    return part.ok ? { ok: true, value: { ok: true, format, id: part.value.number } } : part;
  }
  return refused([
    {
      code: "wrong-value",
      path: "format",
      message: `expected "airway-circuit", "airway-case", "airway-plan" or "airway-part", got ${quoted(format)}`,
    },
  ]);
}

function checkCase(input: unknown, library: CircuitLibrary): Parsed<Checked> {
  if (isSeenCase(input)) {
    const seen = parseSeenCase(input);
    return seen.ok ? { ok: true, value: { ok: true, format: "airway-case", id: seen.value.id } } : seen;
  }
  const found = parseCase(input, library);
  if (!found.ok) return found;
  const netlist = buildNetlist(found.value.circuit);
  if (!netlist.ok) return netlist;
  const compiled = new CompiledCircuit(netlist.value, { samples: 1 });
  const wrong = found.value.readings.flatMap((reading, index) =>
    readingProblems(compiled, reading).map(({ code, path, message }) => ({
      code,
      path: `readings.${index}.${path}`,
      message,
    })),
  );
  if (wrong.length > 0) return refused(wrong);
  return { ok: true, value: { ok: true, format: "airway-case", id: found.value.id } };
}
