import type { JobRefusal } from "@core/records/jobStage";

/**
 * Why a job did not take an entry, in a sentence.
 * @param when formats a moment for the sentence: `at 14:10`, `on 3 Nov 2026, 14:10`
 */
export function jobRefusalText(refusal: JobRefusal, when: (moment: Date) => string): string {
  switch (refusal.code) {
    case "job-deleted":
      return `The job was deleted ${when(new Date(refusal.at))}.`;
    case "id-taken":
      return "It carries the id of an entry on another job.";
    case "other-stage": {
      const since = refusal.at === null ? "" : ` ${when(new Date(refusal.at))}`;
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
