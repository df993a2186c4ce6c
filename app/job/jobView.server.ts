import type { Circuit } from "@core/circuit/circuit";
import type { EarlierVisit } from "@core/diagnose/history/earlierVisit";
import type { FailedRepair } from "@core/diagnose/history/failedRepair";
import { placesNeeded, testMinutes } from "@core/diagnose/tests/access";
import { faultFromId } from "@core/fault/fault";
import { mends } from "@core/labour/workDone";
import { defaultStoppingCosts, repairDefaults, type StoppingCosts } from "@core/money/stoppingCosts";
import type { Reading } from "@core/predict/reading";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { problemText } from "@core/problem/problem";
import { learntRepairs, type MeasuredRepairs, repairsAsLearnt } from "@core/records/learntRepairs";
import { buildNetlist } from "@core/solve/buildNetlist";
import { familyName } from "@core/solve/checks/circuitFamily";
import type { Netlist } from "@core/solve/netlist/netlist";
import type { Setup } from "@core/solve/netlist/setup";
import { operatingPoint } from "@core/solve/operatingPoint";
import { partsMended, type WorkLine } from "@core/workList/workLine";
import { findCircuit } from "@db/repositories/circuits.server";
import { type FamilyCounts, faultCounts, measuredRepairs } from "@db/repositories/closures.server";
import { type Fitting, fittingsOf } from "@db/repositories/fittings.server";
import { findJob, type Job } from "@db/repositories/jobs.server";
import { lastEventOf } from "@db/repositories/lastEvent.server";
import { type Note, notesOf } from "@db/repositories/notes.server";
import { readingsOf, type StoredReading } from "@db/repositories/readings.server";
import { learningOn, shopTerms } from "@db/repositories/settings.server";
import { activeWorks, worksOf } from "@db/repositories/works.server";
import { evidenceText, resultText } from "@words/tests/testText";
import { data } from "react-router";
import { engineFor, withoutTables } from "../engine/engine.server";
import type { SheetState } from "../sheet/sheetState";
import { clockText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";

/** What is stored of a job. */
export interface JobFacts extends JobAt {
  readonly stored: readonly StoredReading[];
  readonly notes: readonly Note[];
  /** The shop's own costs, which decide when to stop testing. */
  readonly costs: StoppingCosts;
  /** Everything done and planned on this job, without what was deleted. */
  readonly works: readonly WorkLine[];
  /** Parts put right in this job that did not fix the fault. */
  readonly repairs: readonly FailedRepair[];
  /** The visit that this job is a comeback of; null if it is none, or if the circuit is another one now. */
  readonly earlier: EarlierVisit | null;
  /** The shop's confirmed faults, which update the priors. */
  readonly learnt: FamilyCounts;
}

/** Everything a job's pages are made from. */
export interface JobView extends JobFacts {
  readonly engine: CompiledCircuit;
}

/** The number in a job's address; answers 404 if there is none. */
export function jobNumber(id: string | undefined): number {
  if (!/^\d{1,9}$/.test(id ?? "")) throw noSuchJob();
  return Number(id);
}

const noSuchJob = () => data("There is no such job.", { status: 404 });

/** A stored job on its circuit. */
export interface JobAt {
  readonly job: Job;
  readonly circuit: Circuit;
  /** The number of its last change; what is read after it is at least as new. */
  readonly version: number;
}

/** The job of an address; answers 404 if there is none. */
export async function jobAt(id: string | undefined): Promise<JobAt> {
  const version = await lastEventOf(jobNumber(id));
  const job = await findJob(jobNumber(id));
  const circuit = job ? await findCircuit(job.circuitId) : null;
  if (!job || !circuit) throw noSuchJob();
  return { job, circuit, version };
}

/**
 * Loads a job with its readings, its compiled circuit and what the shop has learned.
 * @param request signal of the request; see `engineFor`
 */
export async function jobViewAt(id: string | undefined, request?: AbortSignal): Promise<JobView> {
  const at = await jobAt(id);
  const [engine, facts] = await Promise.all([
    engineFor(at.circuit, request),
    factsOf(at, withoutTables(at.circuit).netlist),
  ]);
  return { ...facts, engine };
}

/**
 * Loads what is stored of a job, without compiling its circuit.
 * @throws if the solver does not know one of its parts
 */
export async function jobFactsAt(id: string | undefined): Promise<JobFacts> {
  const at = await jobAt(id);
  const netlist = buildNetlist(at.circuit, { lumpWires: true });
  if (!netlist.ok) throw new Error(netlist.problems.map(problemText).join("; "));
  return factsOf(at, netlist.value);
}

async function factsOf(at: JobAt, netlist: Netlist): Promise<JobFacts> {
  const { job } = at;
  const [stored, notes, fittings, listed, earlier, { hourMinor, comebackMinor }, on] = await Promise.all([
    readingsOf(job.id),
    notesOf(job.id),
    fittingsOf(job.id),
    worksOf(job.id),
    earlierVisit(job),
    shopTerms(),
    learningOn(),
  ]);
  const [learnt, repaired] = on
    ? await Promise.all([faultCounts(familyName(netlist)), measuredRepairs()])
    : [{ counts: [], ofFamily: [] }, []];
  const costs = stoppingCosts(hourMinor, comebackMinor, repaired);
  const works = activeWorks(listed);
  return {
    ...at,
    stored,
    notes,
    costs,
    works,
    repairs: failedRepairs(fittings, works, stored),
    earlier,
    learnt,
  };
}

/** What was read and put right on the visit that a job is a comeback of. */
async function earlierVisit({ comebackOf, circuitId }: Job): Promise<EarlierVisit | null> {
  const first = comebackOf === null ? null : await findJob(comebackOf);
  if (!first || first.circuitId !== circuitId) return null;
  const [stored, fittings, listed] = await Promise.all([
    readingsOf(first.id),
    fittingsOf(first.id),
    worksOf(first.id),
  ]);
  const works = activeWorks(listed);
  const mended = partsMended(works);
  return {
    readings: activeReadings({ stored }),
    repairs: failedRepairs(fittings, works, stored),
    parts: mended.length > 0 ? mended : (first.fitted ?? []),
  };
}

/**
 * Parts put right that did not fix the fault, with the number of active readings before each. A bearing that was only
 * oiled, or a part put back as good, may still be at fault.
 */
const failedRepairs = (
  fittings: readonly Fitting[],
  works: readonly WorkLine[],
  stored: readonly StoredReading[],
): FailedRepair[] =>
  fittings
    .filter(({ outcome }) => outcome === "failed")
    .map(({ parts, fittedAt, found }, place) => ({
      ...(Object.keys(found).length > 0 ? { found } : {}),
      after: stored.filter(({ struckAt, takenAt }) => !struckAt && takenAt <= fittedAt).length,
      parts: parts.filter(
        (part) => !works.some((own) => own.round === place + 1 && own.part === part && !mends(own.done)),
      ),
    }));

/** Costs of a wrong repair and of another test, from the shop's rates and the minutes its own repairs took. */
export function stoppingCosts(
  hourMinor: number,
  comebackMinor: number,
  repaired: readonly MeasuredRepairs[],
): StoppingCosts {
  const repairs =
    repaired.length > 0
      ? repairsAsLearnt(repairDefaults, learntRepairs(repairDefaults, repaired))
      : undefined;
  return { ...defaultStoppingCosts, hourMinor, comebackMinor, repairs };
}

/** The round a job is in: every failed final check ends one. */
export const presentRound = ({ repairs }: JobFacts): number => repairs.length + 1;

/** The lines of work of that round: what an earlier one did is done and billed. */
export const presentWorks = (facts: JobFacts): readonly WorkLine[] =>
  facts.works.filter(({ round }) => round === presentRound(facts));

/** Readings that are not deleted. */
export const activeReadings = ({ stored }: Pick<JobFacts, "stored">): Reading[] =>
  stored.flatMap(({ reading, struckAt }) => (struckAt ? [] : [reading]));

/** Their numbers in the evidence, in the same order. */
export const activeNumbers = ({ stored }: JobFacts): number[] =>
  stored.flatMap(({ number, struckAt }) => (struckAt ? [] : [number]));

/** Minutes of testing so far: each test's own, and every location opened once. */
export function minutesTesting(engine: CompiledCircuit, readings: readonly Reading[]): number {
  const open = new Set<string>();
  let minutes = 0;
  for (const reading of readings) {
    if (reading.heard) continue;
    minutes += testMinutes(engine, reading, open);
    for (const place of placesNeeded(engine, reading)) open.add(place);
  }
  return minutes;
}

/** A note as the evidence shows it. */
export interface NoteLine {
  readonly id: string;
  readonly words: string;
  readonly photo: { readonly width: number; readonly height: number } | null;
  readonly time: string;
  readonly struck: boolean;
}

/** A reading as the evidence shows it. */
export interface EvidenceLine {
  readonly id: string;
  readonly number: number;
  readonly heard: boolean;
  readonly what: string;
  readonly result: string;
  /** The instrument it was read from; null if it was entered by hand. */
  readonly source: string | null;
  /** Who took it; null if that is not known. */
  readonly takenBy: string | null;
  readonly time: string;
  readonly struck: boolean;
  readonly notes: readonly NoteLine[];
}

/** Notes as the evidence shows them. */
export const noteLines = (notes: readonly Note[]): NoteLine[] =>
  notes.map(({ id, words, photo, takenAt, struckAt }) => ({
    id,
    words,
    photo,
    time: clockText(takenAt, shopZone()),
    struck: struckAt !== null,
  }));

/** The evidence of a job, reading by reading, each with its notes. */
export function evidenceLines(
  circuit: Circuit,
  stored: readonly StoredReading[],
  notes: readonly Note[] = [],
): EvidenceLine[] {
  const zone = shopZone();
  return stored.map(({ id, number, reading, source, takenAt, takenBy, struckAt }) => ({
    id,
    number,
    heard: reading.heard ?? false,
    what: evidenceText(circuit, reading),
    result: resultText(reading),
    source,
    takenBy,
    time: clockText(takenAt, zone),
    struck: struckAt !== null,
    notes: noteLines(notes.filter(({ readingId }) => readingId === id)),
  }));
}

/** The circuit's states in some set-ups, under each assumption: `healthy` or a fault. */
export function sheetStatesAt(
  { netlist }: Pick<CompiledCircuit, "netlist">,
  under: readonly string[],
  setups: readonly (Setup & Pick<SheetState, "key" | "setting">)[],
): SheetState[] {
  return under.flatMap((id) => {
    const fault = id === "healthy" ? null : faultFromId(netlist, id);
    const changes = fault?.ok ? fault.value.changes : [];
    return setups.map((setup) => {
      const { volts, amps, rpm, floating, buzzing } = operatingPoint(netlist, setup, changes);
      return {
        under: id,
        key: setup.key,
        setting: setup.setting,
        point: { volts: rounded(volts), amps: rounded(amps), rpm, floating, buzzing },
      };
    });
  });
}

/** The states the sheet shows most often: key on in every setting, and key out. */
export function sheetStates(
  engine: Pick<CompiledCircuit, "netlist">,
  under: readonly string[],
): SheetState[] {
  const { settings } = engine.netlist.circuit;
  const setups = (["run", "off"] as const).flatMap((key) => settings.map((setting) => ({ key, setting })));
  return sheetStatesAt(engine, under, setups);
}

/** Three decimals are more than a meter shows, and make the text a fifth as long. */
function rounded<T extends number | null>(values: Readonly<Record<string, T>>): Record<string, T> {
  return Object.fromEntries(
    Object.entries(values).map(([name, value]) => [
      name,
      value === null ? value : Math.round(value * 1000) / 1000,
    ]),
  ) as Record<string, T>;
}
