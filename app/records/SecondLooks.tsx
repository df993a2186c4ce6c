import { Form, Link, useNavigation } from "react-router";
import type { SecondLookData } from "./secondLook.server";

/** Older closings: how many wait for a second look, and what it changed, each of which can be undone. */
export function SecondLooks({ looks: { left, atOnce, changed } }: { readonly looks: SecondLookData }) {
  const busy = useNavigation().state !== "idle";
  if (left === 0 && changed.length === 0) return null;
  return (
    <section aria-labelledby="second" className="grid gap-2">
      <h2 id="second" className="text-lg font-bold">
        Review of older jobs
      </h2>
      <p className="max-w-prose text-base text-soft">
        Older closings did not ask for the fault of each part. Airway checks what their readings prove. A job
        with no proof keeps counting as it did. A temporary repair stops counting.
      </p>
      {left > 0 && (
        <Form method="post" preventScrollReset className="flex flex-wrap items-center gap-3">
          <span>
            {left} {left === 1 ? "job has" : "jobs have"} not been reviewed.
          </span>
          <button type="submit" name="intent" value="look-again" className="btn" disabled={busy}>
            {busy ? "Reviewing" : left > atOnce ? `Review the next ${atOnce}` : "Review them"}
          </button>
        </Form>
      )}
      {changed.length > 0 && (
        <ul className="divide-y divide-rule border-y border-rule">
          {changed.map(({ jobId, before, after, undone }) => (
            <li key={jobId} className="flex flex-wrap items-center gap-x-3 py-1 text-base" data-look={jobId}>
              <Link to={`/jobs/${jobId}/close`} className="inline-flex min-h-11 items-center underline">
                job {jobId}
              </Link>
              <span className="grow">
                {undone ? `Counts as ${before} again.` : `Counted as ${before}. ${after}`}
              </span>
              <Form method="post" preventScrollReset>
                <input type="hidden" name="intent" value="undo-look" />
                <input type="hidden" name="job" value={jobId} />
                <button
                  type="submit"
                  name="undone"
                  value={undone ? "no" : "yes"}
                  className="btn px-3 text-base"
                  aria-label={`${undone ? "Change it again" : "Undo"}: job ${jobId}`}
                >
                  {undone ? "Change it again" : "Undo"}
                </button>
              </Form>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
