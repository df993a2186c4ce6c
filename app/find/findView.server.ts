import { everything } from "@db/recordQuery";
import { listCircuits } from "@db/repositories/circuits.server";
import { findJob } from "@db/repositories/jobs.server";
import { listParts } from "@db/repositories/parts.server";
import { findRecords, type RecordLine } from "@db/repositories/records.server";
import { openSeenJobs } from "@db/repositories/seenJobs.server";
import { listVehicles } from "@db/repositories/vehicles.server";
import { seenCarText } from "@words/seenCarWords";
import { stageWords } from "@words/stateWords";
import { everyWord } from "./everyWord";
import { pagesFor } from "./pages";

/** One thing a search found, with the page that shows it. */
export interface Found {
  readonly to: string;
  readonly title: string;
  readonly detail: string;
}

/** What a search found of one kind, the best first. */
export interface FoundGroup {
  readonly title: string;
  readonly found: readonly Found[];
}

/** Most results shown of each kind. */
const shownOfEach = 8;

/**
 * Everything whose words contain all words of a query: jobs, vehicles, circuits, parts and pages; empty kinds are left
 * out.
 * @param runsShop whether the pages of an owner are for whoever asks
 */
export async function findView(query: string, runsShop: boolean): Promise<FoundGroup[]> {
  if (!query.trim()) return [];
  const matches = everyWord(query);
  const [jobs, noDiagram, vehicles, circuits, parts] = await Promise.all([
    jobsFor(query),
    openSeenJobs(),
    listVehicles(),
    listCircuits(),
    listParts(),
  ]);
  const groups: FoundGroup[] = [
    { title: "Jobs", found: jobs },
    {
      title: "Jobs without a diagram",
      found: noDiagram
        .filter(({ label, words, seen }) => matches(`${label} ${words} ${seenCarText(seen)}`))
        .map(({ id, label, words, seen }) => ({
          to: `/no-diagram/${id}`,
          title: label || "Vehicle without a name",
          detail: [seenCarText(seen), words].filter(Boolean).join(" · "),
        })),
    },
    {
      title: "Vehicles",
      found: vehicles
        .filter(({ label, model }) => matches(`${label} ${model}`))
        .map(({ id, label, model }) => ({ to: `/records/vehicle/${id}`, title: label, detail: model })),
    },
    {
      title: "Circuits",
      found: circuits
        .filter(({ shelfId, title }) => matches(`${shelfId} ${title}`))
        .map(({ shelfId, title }) => ({ to: `/shelf/${shelfId}`, title, detail: shelfId })),
    },
    {
      title: "Parts",
      found: parts.flatMap(({ number, title, fits }) => {
        const [place] = fits ?? [];
        return place && matches(`${number} ${title}`)
          ? [{ to: `/shelf/${place.circuit}`, title: number, detail: title }]
          : [];
      }),
    },
    {
      title: "Pages",
      found: pagesFor(query, runsShop).map(({ to, title }) => ({ to, title, detail: "" })),
    },
  ];
  return groups
    .filter(({ found }) => found.length > 0)
    .map(({ title, found }) => ({ title, found: found.slice(0, shownOfEach) }));
}

/** The job with a number, or jobs by words of the vehicle, the complaint, what was found and the notes; the newest first. */
async function jobsFor(query: string): Promise<Found[]> {
  const number = /^(?:job )?(\d{1,9})$/i.exec(query.trim())?.[1];
  if (number) {
    const job = await findJob(Number(number));
    return job ? [foundJob({ ...job, vehicle: `${job.vehicle.model}, ${job.vehicle.label}` })] : [];
  }
  return (await findRecords({ ...everything, words: query, count: shownOfEach })).map(foundJob);
}

const foundJob = ({
  id,
  vehicle,
  words,
  stage,
}: Pick<RecordLine, "id" | "vehicle" | "words" | "stage">): Found => ({
  to: stage === "closed" ? `/jobs/${id}/close` : `/jobs/${id}`,
  title: `Job ${id}: ${vehicle}`,
  detail: `${stageWords[stage]}${words ? ` · ${words}` : ""}`,
});
