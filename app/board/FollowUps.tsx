import { Form, Link } from "react-router";
import type { FollowUpLine } from "./boardView.server";

/** Vehicles to look at again after a temporary repair, due now or within a week. */
export const FollowUps = ({ lines }: { lines: readonly FollowUpLine[] }) =>
  lines.length > 0 && (
    <section aria-labelledby="follow-ups" className="mt-3 border-l-4 border-feed bg-card px-3 py-1.5">
      <h2 id="follow-ups" className="text-lg font-bold">
        Check these again
      </h2>
      <ul className="divide-y divide-rule">
        {lines.map(({ jobId, vehicle, why, day, late }) => (
          <li key={jobId} className="grid grid-cols-[1fr_auto] items-center gap-x-3 py-1 md:flex">
            <Link
              to={`/jobs/${jobId}/close`}
              className="flex min-h-11 items-center font-semibold max-md:col-span-2"
            >
              {vehicle}
            </Link>
            <span className="grow text-base text-soft">
              {why}{" "}
              <span className={late ? "font-bold text-danger" : "text-base"}>
                {late ? `due ${day}` : `by ${day}`}
              </span>
            </span>
            <Form method="post" preventScrollReset>
              <input type="hidden" name="intent" value="followed-up" />
              <input type="hidden" name="job" value={jobId} />
              <button type="submit" className="btn px-3 text-base" aria-label={`Checked again: ${vehicle}`}>
                Checked
              </button>
            </Form>
          </li>
        ))}
      </ul>
    </section>
  );
