import { percent } from "@core/units/wording";
import { Link } from "react-router";
import type { EvidenceLine } from "../job/jobView.server";
import type { Probed } from "./probeData";
import type { SuspectLine } from "./suspectLine";

interface AtAGlanceProps {
  readonly jobId: number;
  readonly verdict: Probed["verdict"];
  readonly suspects: readonly SuspectLine[];
  readonly evidence: readonly EvidenceLine[];
}

const shown = 3;

/** The leading suspects, the last reading and the state of the verdict. On a desktop it is always in view. */
export function AtAGlance({ jobId, verdict, suspects, evidence }: AtAGlanceProps) {
  const last = evidence.findLast(({ struck, heard }) => !struck && !heard);
  const { state, name, p } = verdict;
  return (
    <section
      aria-label="At a glance"
      className="bg-bench text-base md:sticky md:bottom-0 md:z-10 md:-mx-3.5 md:-mb-3.5 md:border-t-2 md:border-ink md:px-3.5 md:py-2"
    >
      <ul aria-label="Leading suspects" className="grid gap-0.5">
        {suspects.slice(0, shown).map((line) => (
          <li key={line.key} className="grid grid-cols-[minmax(0,1fr)_5rem_3.4rem] items-center gap-2">
            <span className="truncate">{line.name}</span>
            <span aria-hidden="true" className="h-2.5 border border-[var(--edge)]">
              <span className="block h-full bg-doubt" style={{ width: `${100 * line.p}%` }} />
            </span>
            <span className="figures text-right">{percent(line.p)}</span>
          </li>
        ))}
      </ul>
      {last && (
        <p className="truncate text-soft">
          Reading {last.number}: {last.what}: <b className="text-ink">{last.result}</b>
        </p>
      )}
      <p>
        <b>{state === "open" ? "Not certain yet." : state === "settled" ? "Confirmed:" : "Best guess:"}</b>{" "}
        {state !== "open" && `${name}, ${percent(p)}. `}
        <Link to={`/jobs/${jobId}/verdict`} className="font-semibold underline">
          See the verdict
        </Link>
      </p>
    </section>
  );
}
