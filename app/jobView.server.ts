import type { Circuit } from "@core/circuit/circuit";
import { type DiagnoseOptions, type Diagnosis, diagnose } from "@core/diagnose/diagnose";
import { faultFromId } from "@core/diagnose/fault";
import { problemText } from "@core/formats/problem";
import type { CompiledCircuit } from "@core/predict/compiledCircuit";
import { evidenceText, resultText } from "@core/predict/readingText";
import { operatingPoint } from "@core/solve/operatingPoint";
import { findCircuit } from "@db/repositories/circuits.server";
import { findJob, type Job } from "@db/repositories/jobs.server";
import { readingsOf, type StoredReading } from "@db/repositories/readings.server";
import { data } from "react-router";
import type { SheetState } from "./drawing/sheetState";
import { engineFor } from "./engine.server";
import { clockText } from "./format/clock";
import { shopZone } from "./shop.server";

/** Everything a job's pages are made from. */
export interface JobView {
  readonly job: Job;
  readonly circuit: Circuit;
  readonly engine: CompiledCircuit;
  readonly stored: readonly StoredReading[];
}

/** The job of an address; answers 404 where there is none. */
export async function jobAt(id: string | undefined): Promise<{ job: Job; circuit: Circuit }> {
  const job = /^\d{1,9}$/.test(id ?? "") ? await findJob(Number(id)) : null;
  const circuit = job ? await findCircuit(job.circuitId) : null;
  if (!job || !circuit) throw data("There is no such job.", { status: 404 });
  return { job, circuit };
}

/** A job with its readings and its engine. */
export async function jobViewAt(id: string | undefined): Promise<JobView> {
  const { job, circuit } = await jobAt(id);
  const [engine, stored] = await Promise.all([engineFor(circuit), readingsOf(job.id)]);
  return { job, circuit, engine, stored };
}

/** The diagnosis from the readings that stand. */
export function diagnosisOf({ job, engine, stored }: JobView, options: DiagnoseOptions = {}): Diagnosis {
  const readings = stored.filter(({ struckAt }) => !struckAt).map(({ reading }) => reading);
  const diagnosis = diagnose(engine, readings, { school: job.school, ...options });
  if (!diagnosis.ok) throw new Error(diagnosis.problems.map(problemText).join("; "));
  return diagnosis.value;
}

/** A reading as the evidence shows it. */
export interface EvidenceLine {
  readonly id: string;
  readonly number: number;
  readonly heard: boolean;
  readonly what: string;
  readonly result: string;
  readonly time: string;
  readonly struck: boolean;
}

export function evidenceLines(stored: readonly StoredReading[]): EvidenceLine[] {
  const zone = shopZone();
  return stored.map(({ id, number, reading, takenAt, struckAt }) => ({
    id,
    number,
    heard: reading.heard ?? false,
    what: evidenceText(reading),
    result: resultText(reading),
    time: clockText(takenAt, zone),
    struck: struckAt !== null,
  }));
}

/** The circuit's states for the sheet: key on in every setting and key out, under each assumption. */
export function sheetStates(engine: CompiledCircuit, under: readonly string[]): SheetState[] {
  const { netlist } = engine;
  const { settings } = netlist.circuit;
  const setups = [
    ...settings.map((setting) => ({ key: "run" as const, setting })),
    ...settings.map((setting) => ({ key: "off" as const, setting })),
  ];
  return ["healthy", ...under].flatMap((id) => {
    const fault = id === "healthy" ? null : faultFromId(netlist, id);
    const changes = fault?.ok ? fault.value.changes : [];
    return setups.map(({ key, setting }) => {
      const { volts, amps, rpm, floating, buzzing } = operatingPoint(netlist, { key, setting }, changes);
      return {
        under: id,
        key,
        setting,
        point: { volts: rounded(volts), amps: rounded(amps), rpm, floating, buzzing },
      };
    });
  });
}

/** Three decimals are more than a meter shows, and a fifth of the text. */
function rounded<T extends number | null>(values: Readonly<Record<string, T>>): Record<string, T> {
  return Object.fromEntries(
    Object.entries(values).map(([name, value]) => [
      name,
      value === null ? value : Math.round(value * 1000) / 1000,
    ]),
  ) as Record<string, T>;
}
