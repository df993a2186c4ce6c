import type { JobStage } from "@core/records/jobStage";
import { Link } from "react-router";

interface NextStepProps {
  readonly jobId: number;
  readonly stage: JobStage;
  /** Where a job goes on that is still being tested. */
  readonly probing: { readonly to: string; readonly title: string };
}

/** The one page to go to next, by the stage of the job. */
export function NextStep({ jobId, stage, probing }: NextStepProps) {
  const next = {
    probing,
    "part-awaited": { to: "work", title: "Continue to the work list" },
    "proof-due": { to: "prove", title: "Continue to the final check" },
    closed: { to: "close", title: "Go to the card" },
  }[stage];
  return (
    <p>
      <Link to={`/jobs/${jobId}/${next.to}`} className="btn">
        {next.title}
      </Link>
    </p>
  );
}
