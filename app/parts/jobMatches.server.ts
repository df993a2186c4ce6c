import { type FittingStep, fittingSteps } from "@core/access/fittingStep";
import type { Circuit } from "@core/circuit/circuit";
import { listedFor, type PartDescription } from "@core/match/partDescription";
import { matchParts, type PartMatch } from "@core/match/partMatch";
import { plainNumber } from "@core/match/supersession";
import type { Job } from "@db/repositories/jobs.server";
import { listParts, matchesOf, type StoredMatch } from "@db/repositories/parts.server";

/** The new part chosen for one part of a job's circuit, compared with the old part. */
export interface JobMatch {
  readonly part: string;
  readonly old: PartDescription | null;
  readonly fresh: PartDescription;
  /** Null while the old part is not known. */
  readonly match: PartMatch | null;
  readonly overrides: StoredMatch["overrides"];
}

/** A part of the list by its number, however it is written. */
export const partNumbered = (
  catalogue: readonly PartDescription[],
  number: string | null | undefined,
): PartDescription | null =>
  number ? (catalogue.find((own) => plainNumber(own.number) === plainNumber(number)) ?? null) : null;

/** The old part of a place, if nobody chose one: the first that is listed for it. */
export const listedOld = (
  catalogue: readonly PartDescription[],
  circuit: Circuit,
  part: string,
): PartDescription | null => {
  const kind = circuit.parts.find(({ id }) => id === part)?.kind;
  return catalogue.find((own) => own.kind === kind && listedFor(own, circuit.id, part)) ?? null;
};

/** The new parts a job has chosen, each compared with the old one. */
export async function jobMatches(job: Pick<Job, "id">, circuit: Circuit): Promise<JobMatch[]> {
  const [catalogue, stored] = await Promise.all([listParts(), matchesOf(job.id)]);
  return stored.flatMap(({ part, oldNumber, newNumber, overrides }) => {
    const fresh = partNumbered(catalogue, newNumber);
    if (!fresh || !circuit.parts.some(({ id }) => id === part)) return [];
    const old = partNumbered(catalogue, oldNumber) ?? listedOld(catalogue, circuit, part);
    const accepted = new Set(overrides.map(({ feature }) => feature));
    const match = old && matchParts(circuit, part, old, fresh, catalogue, accepted);
    return [{ part, old, fresh, match, overrides }];
  });
}

/** The work that the chosen parts need: every adaptation except those of accepted differences. */
export const fittingsOfMatches = (matches: readonly JobMatch[]): FittingStep[] =>
  matches.flatMap(({ part, match }) =>
    fittingSteps(
      part,
      (match?.differences ?? []).flatMap(({ adaptation, overridden }) =>
        adaptation && !overridden ? [adaptation] : [],
      ),
    ),
  );

/** The first chosen part that is wrong for its place and that nobody accepted; null if there is none. */
export const wrongMatch = (matches: readonly JobMatch[], parts: readonly string[]): JobMatch | null =>
  matches.find(({ part, match }) => parts.includes(part) && match?.verdict === "wrong") ?? null;

/** The address of the comparison that rules out a part chosen for this work; null if none is ruled out. */
export async function wrongPartAddress(
  job: Pick<Job, "id">,
  circuit: Circuit,
  parts: readonly string[],
): Promise<string | null> {
  const wrong = wrongMatch(await jobMatches(job, circuit), parts);
  return wrong && `/jobs/${job.id}/parts?part=${encodeURIComponent(wrong.part)}&refused=yes`;
}
