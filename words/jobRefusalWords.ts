import type { JobRefusal } from "@core/records/jobStage";

/**
 * Why a job did not take what was sent, in a sentence.
 * @param clock a moment as the shop's clock shows it
 */
export function jobRefusalText(refusal: JobRefusal, clock: (moment: Date) => string): string {
  switch (refusal.code) {
    case "job-deleted":
      return `The job was deleted at ${clock(new Date(refusal.at))}.`;
    case "id-taken":
      return "It carries the id of an entry on another job.";
    case "other-stage": {
      const since = refusal.at === null ? "" : ` at ${clock(new Date(refusal.at))}`;
      return stageSentences[refusal.stage](since);
    }
  }
}

const stageSentences: Readonly<
  Record<Extract<JobRefusal, { code: "other-stage" }>["stage"], (since: string) => string>
> = {
  probing: (since) => `The job went back to probing${since}.`,
  "part-awaited": (since) => `A part was ordered for the job${since}.`,
  "proof-due": (since) => `The part was fitted${since}, and the check is due.`,
  closed: (since) => `The job was closed${since}.`,
};
