import { useFetcher } from "react-router";
import type { SetAsideLine } from "./setAsideView.server";

interface SetAsideListProps {
  readonly jobId: number;
  readonly lines: readonly SetAsideLine[];
  /** What has to happen first for the job to take anything; null if it takes what fits its stage. */
  readonly first: "reopen" | "put-back" | null;
}

/**
 * Entries for the job that were not stored because the job had changed. A person stores each after all, or deletes it.
 */
export function SetAsideList({ jobId, lines, first }: SetAsideListProps) {
  if (lines.length === 0) return null;
  return (
    <section aria-labelledby="aside" className="no-print mx-5 mt-2 border-l-4 border-danger pl-3 max-md:mx-3">
      <h2 id="aside" className="font-bold">
        Not saved, because the job had changed
      </h2>
      <ul>
        {lines.map((line) => (
          <SetAsideItem key={line.id} jobId={jobId} line={line} isTaken={first === null} />
        ))}
      </ul>
      {first === "reopen" && <Reopen jobId={jobId} />}
      {first === "put-back" && <p className="text-base">Restore the job on its Close page first.</p>}
    </section>
  );
}

interface SetAsideItemProps {
  readonly jobId: number;
  readonly line: SetAsideLine;
  /** Whether the job takes entries now. */
  readonly isTaken: boolean;
}

function SetAsideItem({ jobId, line, isTaken }: SetAsideItemProps) {
  const doing = useFetcher<{ readonly problem?: string | null }>();
  const throwing = useFetcher();
  const busy = doing.state !== "idle" || throwing.state !== "idle";
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1">
      <span className="basis-full">
        <b>{line.words}</b> <span className="text-soft">(sent {line.sent})</span> {line.why}
      </span>
      {isTaken && (
        <doing.Form method="post" action={line.address}>
          {Object.entries(line.fields).map(([name, value]) => (
            <input key={name} type="hidden" name={name} value={value} />
          ))}
          <button type="submit" className="btn min-h-11 px-3 text-base" disabled={busy}>
            Save it now
          </button>
        </doing.Form>
      )}
      <throwing.Form method="post" action={`/jobs/${jobId}/aside`}>
        <input type="hidden" name="id" value={line.id} />
        <button
          type="submit"
          name="intent"
          value="throw-away"
          className="btn min-h-11 px-3 text-base"
          disabled={busy}
        >
          Discard it
        </button>
      </throwing.Form>
      {doing.data?.problem && (
        <p role="alert" className="basis-full text-base text-danger">
          {doing.data.problem}
        </p>
      )}
    </li>
  );
}

/** A closed job takes nothing. One closed by mistake can be reopened. */
function Reopen({ jobId }: { readonly jobId: number }) {
  const fetcher = useFetcher();
  return (
    <fetcher.Form
      method="post"
      action={`/jobs/${jobId}/verdict`}
      className="flex flex-wrap items-center gap-3"
    >
      <p className="text-base">
        To save any of this, reopen the job. That undoes its closing and what the shop learned from it.
      </p>
      <button
        type="submit"
        name="intent"
        value="reopen"
        className="btn min-h-11 px-3 text-base"
        disabled={fetcher.state !== "idle"}
      >
        Reopen the job
      </button>
    </fetcher.Form>
  );
}
