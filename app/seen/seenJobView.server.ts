import { defaultStoppingCosts } from "@core/money/stoppingCosts";
import { buildNetlist } from "@core/solve/buildNetlist";
import { placeCautions } from "@core/wiring/placeCautions";
import type { PlaceReading } from "@core/wiring/placeReading";
import { keyOfPlaceReading, labelsMet } from "@core/wiring/placeTest";
import { placesOfTest } from "@core/wiring/placeTests";
import { findCircuit, listCircuits } from "@db/repositories/circuits.server";
import { findJob } from "@db/repositories/jobs.server";
import { type SeenJob, type StoredSeenReading, seenReadingsOf } from "@db/repositories/seenJobs.server";
import { shopTerms } from "@db/repositories/settings.server";
import { placeEvidenceText, placeName, placeResultText } from "@words/placeWords";
import { seenCarText } from "@words/seenCarWords";
import type { HeardSpeed } from "../complaint/ComplaintStrip";
import type { CircuitLayout } from "../sheet/circuitLayout";
import { layoutOf } from "../sheet/layouts.server";
import { clockText } from "../text/clock";
import { randomId } from "../text/randomId";
import { shopZone } from "../text/shopZone.server";
import { beliefWithDiagram, type NamedBelief } from "./beliefWithDiagram.server";
import type { OfferedPlaceTest } from "./NextPlaceTest";
import type { SeenEvidenceLine } from "./SeenEvidence";
import type { SeenDiagnosis } from "./seenDiagnosis";
import { diagnoseSeen } from "./seenEngine.server";
import type { SeenFacts } from "./seenTask";

/** Tests that the page offers: the proposed one, and others to choose. */
const testsOffered = 12;

const isActive = ({ struckAt }: StoredSeenReading): boolean => !struckAt;

/** What a job's diagnosis is computed from. */
export async function seenFactsOf(job: SeenJob, stored: readonly StoredSeenReading[]): Promise<SeenFacts> {
  const { hourMinor, comebackMinor } = await shopTerms();
  return {
    seen: job.seen,
    readings: stored.filter(isActive).map(({ reading }) => reading),
    options: {
      costs: { ...defaultStoppingCosts, hourMinor, comebackMinor },
      outOfReach: job.outOfReach,
      looks: testsOffered,
    },
  };
}

/** What the diagnosis adds to the page. */
export interface SeenFindings {
  readonly diagnosis: SeenDiagnosis;
  /** The layout of the likeliest wiring, or its promise; null if there is none to draw. */
  readonly layout: CircuitLayout | Promise<CircuitLayout> | null;
  readonly offered: readonly OfferedPlaceTest[];
  /** Numbers of the readings that the leading repair does not explain. */
  readonly doubted: readonly number[];
  /** What the readings say by its diagram; null if it did not go on with one. */
  readonly withDiagram: readonly NamedBelief[] | null;
}

async function findingsOf(
  job: SeenJob,
  stored: readonly StoredSeenReading[],
  diagramJob: number | null,
): Promise<SeenFindings> {
  const facts = await seenFactsOf(job, stored);
  const [diagnosis, withDiagram] = await Promise.all([
    diagnoseSeen(facts),
    diagramJob === null ? null : beliefWithDiagram(diagramJob),
  ]);
  const met = labelsMet(facts.readings);
  const numbers = stored.filter(isActive).map(({ number }) => number);
  const netlist = diagnosis.drawing && buildNetlist(diagnosis.drawing.circuit, { lumpWires: true });
  return {
    diagnosis,
    layout: netlist?.ok ? layoutOf(netlist.value) : null,
    offered: diagnosis.next.map((next): OfferedPlaceTest => {
      const [place = null] = placesOfTest(next.test);
      const own = [...met].find(([at]) => at === place)?.[1] ?? [];
      return {
        ...next,
        met: own,
        place,
        cautions: placeCautions(next.test, facts.readings).filter((one) => !job.cautionsRead.includes(one)),
      };
    }),
    doubted: diagnosis.conflicts.flatMap((at) => numbers[at] ?? []),
    withDiagram,
  };
}

const evidenceLine = ({ id, number, reading, takenAt, takenBy, struckAt }: StoredSeenReading) => ({
  id,
  number,
  testKey: keyOfPlaceReading(reading),
  what: placeEvidenceText(reading),
  result: placeResultText(reading),
  takenBy,
  time: clockText(takenAt, shopZone()),
  heard: reading.heard === true,
  struck: struckAt !== null,
});

/** The complaint by speed. */
function heardOf(readings: readonly PlaceReading[]): Record<string, HeardSpeed> {
  const heard: Record<string, HeardSpeed> = {};
  for (const reading of readings)
    if (reading.test === "airflow" && reading.heard && reading.setting !== undefined)
      heard[reading.setting] = { seen: reading.seen, pattern: reading.pattern ?? null };
  return heard;
}

/** Whether a job's circuit was worked out without a diagram. */
async function isWiringAssumed(jobId: number | null): Promise<boolean> {
  const job = jobId === null ? null : await findJob(jobId);
  const circuit = job && (await findCircuit(job.circuitId));
  return circuit?.wiring === "assumed";
}

/**
 * The page of a job without a diagram. Its findings come later, because weighing the wirings can take seconds.
 * @param left numbers of readings that did not go along to the circuit of its diagram
 */
export async function seenJobView(job: SeenJob, left: readonly number[] = []) {
  const [stored, circuits] = await Promise.all([seenReadingsOf(job.id), listCircuits()]);
  const active = stored.filter(isActive).map(({ reading }) => reading);
  const speeds = job.seen.speeds ?? Math.max(0, ...active.map(({ setting }) => Number(setting ?? 0)));
  const wiringAssumed = await isWiringAssumed(job.jobId);
  const settings = Array.from({ length: speeds + 1 }, (_, at) => String(at));
  return {
    id: job.id,
    version: job.version,
    label: job.label,
    words: job.words,
    jobId: job.jobId,
    deleted: job.deletedAt !== null,
    seen: job.seen,
    seenText: seenCarText(job.seen),
    settings,
    heard: heardOf(active),
    tokens: Object.fromEntries(settings.map((setting) => [setting, randomId()])),
    token: randomId(),
    outOfReach: job.outOfReach.map((place) => ({ place, name: placeName(place) })),
    evidence: stored.map(evidenceLine) satisfies Omit<SeenEvidenceLine, "doubted">[],
    wiringAssumed,
    left: stored.filter(({ number }) => left.includes(number)).map(evidenceLine),
    circuits: circuits.map(({ rowId, title }) => ({ id: rowId, title })),
    findings: findingsOf(job, stored, wiringAssumed ? null : job.jobId),
  };
}
