import { Form, Link } from "react-router";
import type { BoardJob } from "./boardJob";

/** One job on the board: the vehicle and its complaint, what happens next, its age and promise. */
export const BoardRow = ({ job }: { job: BoardJob }) => (
  <li className="relative grid items-center gap-x-4 py-1.5 md:min-h-14 md:grid-cols-[minmax(0,5fr)_minmax(0,6fr)_9.5rem]">
    <p className="flex min-w-0 items-baseline gap-2 md:block">
      <Link
        to={job.group === "done" ? `/jobs/${job.id}/close` : `/jobs/${job.id}`}
        className="block min-w-0 grow truncate font-bold after:absolute after:inset-0"
      >
        <span className="max-md:sr-only">{job.model}, </span>
        {job.label}
      </Link>
      <span className="shrink-0 text-base text-soft md:hidden">
        <When job={job} />
      </span>
      <span className="block truncate text-base text-soft max-md:hidden">
        {job.comebackOf !== null && <Comeback of={job.comebackOf} />}
        {job.words}
      </span>
    </p>
    <p className="line-clamp-2 min-w-0 text-base leading-snug md:font-semibold">
      {job.comebackOf !== null && (
        <span className="md:hidden">
          <Comeback of={job.comebackOf} />
        </span>
      )}
      {job.line ?? <span className="font-normal text-soft">Working out the next test…</span>}
    </p>
    <div className="flex items-center justify-end gap-2 text-right text-base text-soft max-md:hidden">
      <When job={job} />
    </div>
    {job.group === "part-awaited" && (
      <Form method="post" preventScrollReset className="relative z-10 md:col-start-2">
        <input type="hidden" name="job" value={job.id} />
        <button type="submit" name="intent" value="parts-in" className="min-h-11 text-base underline">
          Mark as arrived
        </button>
      </Form>
    )}
  </li>
);

/** The promise, or else the age. */
const When = ({ job: { promise, late, age, group } }: { job: BoardJob }) =>
  promise && group !== "done" ? (
    <span className={late ? "font-bold text-danger" : "font-semibold text-ink"}>
      {late ? `late, ${promise}` : promise}
    </span>
  ) : (
    <span>{group === "done" ? "" : age}</span>
  );

const Comeback = ({ of }: { of: number }) => (
  <b className="mr-1.5 border-2 border-danger px-1 text-sm text-danger">came back, job {of}</b>
);
