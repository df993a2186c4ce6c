import type { Circuit } from "@core/circuit/circuit";
import { circuitChanges } from "@core/circuit/circuitChange";
import { diagnose } from "@core/diagnose/diagnose";
import { type Case, parseCase } from "@core/formats/case";
import { readingProblems } from "@core/predict/readingProblems";
import { CircuitCache } from "@core/predict/tables/circuitCache";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { problemText } from "@core/problem/problem";
import { database } from "@db/database.server";
import { addCircuit, findCircuit, versionsOf } from "@db/repositories/circuits.server";
import { insertFailedFitting, type VerdictThen } from "@db/repositories/fittings.server";
import { addJob, jobOfForm } from "@db/repositories/jobs.server";
import { insertReading } from "@db/repositories/readings.server";
import { addVehicle } from "@db/repositories/vehicles.server";
import { insertWork } from "@db/repositories/works.server";
import { verdictOn } from "../job/verdictThen.server";
import { type ImportPreview, previewImport } from "./importCircuit.server";

type Read<T> = { readonly value: T } | { readonly problems: readonly string[] };

/** What a case would add: its circuit compared with the shelf, and a job with its readings. */
export interface CasePreview {
  readonly circuit: ImportPreview;
  readonly readings: number;
  /** Lines of work, and how many repairs failed their check. */
  readonly works: number;
  readonly failed: number;
  /** The file tells of an earlier visit, which is not imported. */
  readonly leavesEarlier: boolean;
  readonly school: string;
}

/** A case whose readings its circuit can give. */
interface CheckedCase extends Case {
  readonly compiled: CompiledCircuit;
}

async function caseFrom(input: unknown): Promise<Read<CheckedCase>> {
  const named =
    typeof input === "object" && input !== null && "circuitId" in input ? String(input.circuitId) : "";
  const [newest] = named ? await versionsOf(named) : [];
  const known = newest ? await findCircuit(newest.rowId) : null;
  const parsed = parseCase(input, () => known);
  if (!parsed.ok) return { problems: parsed.problems.slice(0, 12).map(problemText) };
  const compiled = new CircuitCache(1).compile(parsed.value.circuit);
  if (!compiled.ok) return { problems: compiled.problems.map(problemText) };
  const wrong = parsed.value.readings.flatMap((reading, index) =>
    readingProblems(compiled.value, reading).map(({ code, path, message }) =>
      problemText({ code, path: `readings.${index}${path ? `.${path}` : ""}`, message }),
    ),
  );
  return wrong.length > 0
    ? { problems: wrong.slice(0, 12) }
    : { value: { ...parsed.value, compiled: compiled.value } };
}

/** What importing a case would do. */
export async function previewCase(input: unknown): Promise<Read<CasePreview>> {
  const read = await caseFrom(input);
  if ("problems" in read) return read;
  const circuit = await previewImport(read.value.circuit);
  if ("problems" in circuit) return circuit;
  const { readings, school: strategy, works, repairs, earlier } = read.value;
  return {
    value: {
      circuit: circuit.value,
      readings: readings.length,
      works: works.length,
      failed: repairs.length,
      leavesEarlier: earlier !== null,
      school: strategy,
    },
  };
}

/** The vehicle's name in this shop. */
export interface CaseVehicle {
  readonly formToken: string;
  readonly label: string;
  readonly model: string;
  readonly words: string;
}

/** Row of the shelf's version with the same content as a circuit; a case may hold an older one than the newest. */
async function versionThatSays(circuit: Circuit): Promise<string | null> {
  for (const { rowId } of await versionsOf(circuit.id)) {
    const known = await findCircuit(rowId);
    if (known && circuitChanges(known, circuit).length === 0) return rowId;
  }
  return null;
}

/** The verdict at each repair of a case that failed its check. */
const verdictsThen = ({ compiled, readings, repairs, school }: CheckedCase): VerdictThen[] =>
  repairs.map(({ after, parts }, place) => {
    const before = readings.slice(0, after);
    const diagnosis = diagnose(compiled, before, { school, repairs: repairs.slice(0, place) });
    if (!diagnosis.ok) throw new Error(diagnosis.problems.map(problemText).join("; "));
    return verdictOn(compiled, before, diagnosis.value, parts);
  });

/** Imports a case as a job, and its circuit to the shelf unless the shelf has the same content; all or nothing. */
export async function storeCase(input: unknown, vehicle: CaseVehicle): Promise<Read<{ job: number }>> {
  const read = await caseFrom(input);
  if ("problems" in read) return read;
  const { circuit, readings, school: strategy, repairs, works } = read.value;
  const verdicts = verdictsThen(read.value);
  const preview = await previewImport(circuit);
  if ("problems" in preview) return preview;
  const same = await versionThatSays(circuit);
  const { formToken, label, model, words } = vehicle;
  const store = await database();
  const job = await store.write(async (transaction) => {
    const opened = await jobOfForm(formToken, transaction);
    if (opened !== null) return opened;
    const circuitId = same ?? (await addCircuit(circuit, transaction)).rowId;
    const { id: vehicleId } = await addVehicle({ label, model, circuitId }, transaction);
    const id = await addJob({ formToken, vehicleId, circuitId, words, school: strategy }, transaction);
    const begun = Date.now();
    // A repair lies between the readings before and after it, so that rounds and readings stay in order.
    const readingAt = (index: number): Date => new Date(begun + 2 * index);
    for (const [index, reading] of readings.entries())
      await insertReading(
        { id: `${formToken}-${index}`, jobId: id, reading, takenAt: readingAt(index), takenBy: null },
        transaction,
      );
    for (const [place, repair] of repairs.entries()) {
      const then = verdicts[place];
      const fittedAt = new Date(begun + 2 * repair.after - 1);
      if (then) await insertFailedFitting(id, repair, then, fittedAt, transaction);
    }
    for (const [index, { round, ...line }] of works.entries())
      await insertWork(
        id,
        { ...line, id: `${formToken}-work-${index}`, doneBy: null },
        round,
        readingAt(index),
        transaction,
      );
    return id;
  });
  return { value: { job } };
}
