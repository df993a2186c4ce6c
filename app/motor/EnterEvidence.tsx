import { useFetcher } from "react-router";

interface EnterEvidenceProps {
  /** The same text for the same recording, so that it is entered once. */
  readonly token: string;
  readonly reading: object;
  readonly source: string;
  /** True if another entry beside it is the main one. */
  readonly plain?: boolean;
  readonly children: React.ReactNode;
}

/** Enters what a recording shows among the job's readings, where it counts like any other. */
export function EnterEvidence({ token, reading, source, plain = false, children }: EnterEvidenceProps) {
  const fetcher = useFetcher<{ problem?: string }>();
  const stored = fetcher.state === "idle" && fetcher.data !== undefined && !fetcher.data.problem;
  return (
    <fetcher.Form method="post" className="grid gap-1">
      <input type="hidden" name="intent" value="reading" />
      <input type="hidden" name="token" value={token} />
      <input type="hidden" name="source" value={source} />
      <input type="hidden" name="reading" value={JSON.stringify(reading)} />
      <button className={plain ? "btn" : "btn btn-main"} type="submit" disabled={stored}>
        {stored ? "Added to the evidence" : children}
      </button>
      {fetcher.data?.problem && (
        <p role="alert" className="text-danger">
          {fetcher.data.problem}
        </p>
      )}
    </fetcher.Form>
  );
}
