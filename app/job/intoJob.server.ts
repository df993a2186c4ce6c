import { isDeepStrictEqual } from "node:util";
import type { JobRefusal } from "@core/records/jobStage";
import { actAs } from "@db/acting.server";
import { asideWith, decideAside, keepAside } from "@db/repositories/setAside.server";
import { jobRefusalText } from "@words/jobRefusalWords";
import { clockText } from "../text/clock";
import { randomId } from "../text/randomId";
import { shopZone } from "../text/shopZone.server";

/** What a form or a browser's queue sent to a job. */
export interface SentToJob {
  readonly jobId: number;
  /** Address it was sent to: `/jobs/4/verdict`. */
  readonly address: string;
  readonly fields: Readonly<Record<string, string>>;
  /** Its text for the person who decides if it is refused: `R1 is fitted`. */
  readonly words: string;
  readonly at: Date;
}

/** Why an entry for a job was not stored, and the status of the answer. */
export interface Refused {
  /** 409: the job changed meanwhile, and the entry is kept. 422: the entry itself is wrong. */
  readonly status: 409 | 422;
  readonly problem: string;
}

/** Fields that belong to one sending, not to the entry. */
const ofTheSending = new Set(["token", "aside", "waitedSeconds"]);

/** A write to a job; the job may refuse it. */
export type WriteToJob = () => Promise<JobRefusal | null>;

/** What belongs to the entry itself. */
const ofTheEntry = (fields: SentToJob["fields"]): SentToJob["fields"] =>
  Object.fromEntries(Object.entries(fields).filter(([name]) => !ofTheSending.has(name)));

/**
 * Writes to a job. What the job no longer takes is kept for a person to decide. An entry kept earlier is stored under
 * the name of whoever sent it first, if it is still what they sent, and is then decided.
 */
export async function intoJob(sent: SentToJob, write: WriteToJob): Promise<Refused | null> {
  const { aside } = sent.fields;
  const earlier = aside ? await asideWith(sent.jobId, aside) : null;
  const isUnchanged =
    earlier !== null && isDeepStrictEqual(ofTheEntry(earlier.fields), ofTheEntry(sent.fields));
  const refused = await (isUnchanged
    ? actAs(earlier.who, () => writeOrKeep(sent, write))
    : writeOrKeep(sent, write));
  if (!refused && aside) await decideAside(sent.jobId, aside, "stored", new Date());
  return refused;
}

async function writeOrKeep(sent: SentToJob, write: WriteToJob): Promise<Refused | null> {
  const refusal = await write();
  if (!refusal) return null;
  const { aside, token } = sent.fields;
  await keepAside({
    ...sent,
    id: aside ?? (refusal.code === "id-taken" ? undefined : token) ?? randomId(),
    fields: ofTheEntry(sent.fields),
    refusal,
  });
  const why = jobRefusalText(refusal, (moment) => `at ${clockText(moment, shopZone())}`);
  return {
    status: 409,
    problem: `Not saved: ${sent.words}. ${why} It is kept at the top of the job's pages.`,
  };
}

/** The answer to a browser's queue: 409 or 422 with the reason if it was refused. */
export const queueAnswer = (refused: Refused | null, stored: object = {}): Response =>
  Response.json(refused ? { problem: refused.problem } : stored, {
    status: refused?.status ?? 200,
    headers: { "Cache-Control": "no-store" },
  });
