import type { Job } from "@db/repositories/jobs.server";
import { setAsideOf } from "@db/repositories/setAside.server";
import { jobRefusalText } from "@words/jobRefusalWords";
import { dayText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";

/** An entry that a job did not take, for the person who decides. */
export async function setAsideView(job: Job) {
  const zone = shopZone();
  const now = Date.now();
  return (await setAsideOf(job.id)).map(({ id, address, fields, words, refusal, at, who }) => ({
    id,
    address,
    fields: {
      ...fields,
      token: id,
      aside: id,
      // If it is stored now, it is dated to when it was first sent.
      waitedSeconds: ((now - at.getTime()) / 1000).toFixed(0),
    },
    words,
    sent: [dayText(at, zone), ...(who ? [`by ${who}`] : [])].join(" "),
    why: jobRefusalText(refusal, (moment) => `on ${dayText(moment, zone)}`),
  }));
}

export type SetAsideLine = Awaited<ReturnType<typeof setAsideView>>[number];
