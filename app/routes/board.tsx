import { backupWarning, newestVerified } from "@db/keeping/backup.server";
import { readJobs } from "@db/repositories/jobs.server";
import { stageWords } from "@words/stateWords";
import { useEffect } from "react";
import { Link, useRevalidator } from "react-router";
import { boardLines, isRefreshing } from "../board/jobLine.server";
import { Rail } from "../shell/Rail";
import { dayText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";
import type { Route } from "./+types/board";

/** Number of closed jobs on the board; the rest are in the records. */
const closedShown = 12;

export async function loader() {
  const [{ jobs: open, unreadable }, { jobs: closed, unreadable: more }] = await Promise.all([
    readJobs(["probing", "part-awaited", "proof-due"]),
    readJobs(["closed"], closedShown),
  ]);
  const lines = await boardLines(open);
  const zone = shopZone();
  return {
    jobs: [...open, ...closed].map((job) => ({
      id: job.id,
      label: job.vehicle.label,
      model: job.vehicle.model,
      words: job.words,
      stage: job.stage,
      since: dayText(job.createdAt, zone),
      line: lines.get(job.id) ?? null,
    })),
    unreadable: [...unreadable, ...more],
    backup: backupNotice(),
    refreshing: isRefreshing(),
  };
}

/** A new shop makes its first backup a minute after it starts, so nobody is warned before that. */
const firstBackupSeconds = 300;

function backupNotice(): string | null {
  const now = new Date();
  const newest = newestVerified(now);
  return newest || process.uptime() > firstBackupSeconds ? backupWarning(newest?.at ?? null, now) : null;
}

export const meta: Route.MetaFunction = () => [{ title: "Board · Airway" }];

/** Milliseconds between two requests for lines that are being worked out. */
const againMilliseconds = 1500;

export default function Board({ loaderData }: Route.ComponentProps) {
  const { revalidate } = useRevalidator();
  const { refreshing, unreadable, backup } = loaderData;
  useEffect(() => {
    if (!refreshing) return;
    const again = setInterval(() => void revalidate(), againMilliseconds);
    return () => clearInterval(again);
  }, [refreshing, revalidate]);
  const open = loaderData.jobs.filter(({ stage }) => stage !== "closed");
  const closed = loaderData.jobs.filter(({ stage }) => stage === "closed");
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="mx-auto w-full max-w-5xl grow p-5">
        <BoardHead />
        <Notices backup={backup} unreadable={unreadable} />
        {open.length === 0 ? (
          <p className="sheet-card mt-5 p-5 text-soft">
            No open jobs. Start one with New job when a vehicle comes in.
          </p>
        ) : (
          <ul className="mt-5 grid gap-4 md:grid-cols-2">
            {open.map((job) => (
              <JobTag key={job.id} job={job} />
            ))}
          </ul>
        )}
        {closed.length > 0 && (
          <section className="mt-8">
            <h2 className="text-lg font-semibold text-soft">
              Recently closed ·{" "}
              <Link to="/records" className="underline">
                all records
              </Link>
            </h2>
            <ul className="mt-2 divide-y divide-rule border-y border-rule">
              {closed.map((job) => (
                <li key={job.id} className="py-2">
                  <Link to={`/jobs/${job.id}/close`} className="flex min-h-11 flex-wrap items-center gap-x-3">
                    <span className="font-semibold">{job.label}</span>
                    <span className="text-soft">
                      {job.since} · {job.words}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )}
      </main>
    </div>
  );
}

/** What everyone in the shop should see first: an old backup, jobs that cannot be read. */
function Notices({ backup, unreadable }: Pick<Route.ComponentProps["loaderData"], "backup" | "unreadable">) {
  return (
    <>
      {backup && (
        <p role="alert" className="mt-4 border-l-4 border-danger pl-3">
          {backup}{" "}
          <Link to="/records/keeping" className="underline">
            Back up now
          </Link>
        </p>
      )}
      {unreadable.length > 0 && (
        <p role="alert" className="mt-4 text-danger">
          {unreadable.length === 1 ? "Job" : "Jobs"} {unreadable.join(", ")} cannot be read from the database.
          The other jobs are not affected; restore a backup to get {unreadable.length === 1 ? "it" : "them"}{" "}
          back.
        </p>
      )}
    </>
  );
}

function JobTag({ job }: { job: Route.ComponentProps["loaderData"]["jobs"][number] }) {
  return (
    <li className="tag-card">
      <div className="tag-face h-full">
        <p className="flex justify-between gap-3 pr-8 text-base text-soft">
          <span>
            job {job.id} · {stageWords[job.stage]}
          </span>
          <span>{job.since}</span>
        </p>
        <h2 className="mt-1 text-xl font-bold">
          <Link to={`/jobs/${job.id}`}>
            {job.model}, {job.label}
          </Link>
        </h2>
        <p className="mt-1 text-soft">{job.words}</p>
        <p className="mt-2 font-semibold">
          {job.line ?? <span className="text-soft">Working out the next test…</span>}
        </p>
      </div>
    </li>
  );
}

/** The board's title, and the start of a job. */
const BoardHead = () => (
  <div className="flex flex-wrap items-center justify-between gap-3">
    <h1 className="text-2xl font-bold">Open jobs</h1>
    <Link to="/jobs/new" className="btn btn-main">
      New job
    </Link>
  </div>
);
