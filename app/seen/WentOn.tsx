import { percent } from "@core/units/wording";
import { capitalised } from "@words/seenName";
import { Link } from "react-router";
import { DraftOfCircuit } from "../job/DraftOfCircuit";
import type { NamedBelief } from "./beliefWithDiagram.server";
import type { SeenEvidenceLine } from "./SeenEvidence";

interface WentOnProps {
  readonly jobId: number;
  /** Its circuit was worked out from the readings, not taken from a diagram. */
  readonly wiringAssumed: boolean;
  /** What may need work without the diagram and with it; null while it is being worked out, or if there is no diagram. */
  readonly beliefs: {
    readonly before: readonly NamedBelief[];
    readonly after: readonly NamedBelief[];
  } | null;
  /** Readings that say nothing of the circuit. */
  readonly left: readonly Pick<SeenEvidenceLine, "id" | "number" | "what" | "result">[];
}

/** A job without a diagram that went on with a circuit: where to, what the diagram changed, and what stayed behind. */
export const WentOn = ({ jobId, wiringAssumed, beliefs, left }: WentOnProps) => (
  <section aria-label="How this job went on" className="sheet-card mt-2 grid gap-3 p-3">
    <div role="status" className="flex flex-wrap items-center gap-3">
      <p>
        This job went on as <Link to={`/jobs/${jobId}`}>job {jobId}</Link> with{" "}
        {wiringAssumed ? "the circuit that was worked out here" : "its diagram"}.
      </p>
      {wiringAssumed && <DraftOfCircuit jobId={jobId} />}
      <Link to={`/jobs/${jobId}/probe`} className="btn btn-main">
        Continue to Probe
      </Link>
    </div>
    {beliefs && (
      <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
        <BeliefList title="Before, without the diagram" beliefs={beliefs.before} />
        <BeliefList title="Now, with the diagram" beliefs={beliefs.after} />
      </div>
    )}
    {left.length > 0 && (
      <div className="text-base">
        <p>These readings say nothing of that circuit and stayed behind:</p>
        <ul className="list-disc pl-5">
          {left.map(({ id, number, what, result }) => (
            <li key={id}>
              {number}. {what}: {result}
            </li>
          ))}
        </ul>
      </div>
    )}
  </section>
);

/** So many of each, so that both lists can be compared at a glance. */
const mostShown = 5;

const BeliefList = ({ title, beliefs }: { title: string; beliefs: readonly NamedBelief[] }) => (
  <div>
    <h2 className="text-base font-semibold text-soft">{title}</h2>
    <ul className="border-b border-rule">
      {beliefs.slice(0, mostShown).map(({ name, p }) => (
        <li key={name} className="flex items-center justify-between gap-3 border-t border-rule py-1">
          <span>{capitalised(name)}</span>
          <span className="figures font-semibold whitespace-nowrap">{percent(p)}</span>
        </li>
      ))}
    </ul>
  </div>
);
