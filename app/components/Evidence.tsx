import { useFetcher } from "react-router";
import type { EvidenceLine } from "../jobView.server";

interface EvidenceProps {
  readonly lines: readonly EvidenceLine[];
  readonly conflicts: readonly { readonly number: number; readonly why: string }[];
}

/** What was seen, in order; each can be struck out and put back. */
export function Evidence({ lines, conflicts }: EvidenceProps) {
  const standing = lines.filter(({ struck }) => !struck).length;
  return (
    <section aria-labelledby="evidence">
      <h2 id="evidence" className="text-base font-semibold text-soft">
        Evidence, <span data-testid="standing">{standing}</span> {standing === 1 ? "reading" : "readings"}
      </h2>
      {lines.length === 0 && (
        <p className="text-base text-soft">Nothing yet. Enter what the speeds do under Heard.</p>
      )}
      {conflicts.map(({ number, why }) => (
        <p key={number} role="alert" className="mt-1 border-l-4 border-danger pl-2 text-base">
          {why}
        </p>
      ))}
      <ol className="mt-1 text-base" reversed>
        {[...lines].reverse().map((line) => (
          <Line key={line.id} line={line} />
        ))}
      </ol>
    </section>
  );
}

function Line({ line }: { line: EvidenceLine }) {
  const fetcher = useFetcher();
  return (
    <li className="flex items-center gap-2 border-t border-rule" data-reading={line.number}>
      <span className={`grow py-1 ${line.struck ? "text-soft line-through" : ""}`}>
        <span className="figures text-soft">{line.number}.</span> {line.what}: <b>{line.result}</b>
        {line.heard && <span className="text-soft"> (heard)</span>}
      </span>
      <span className="figures text-soft">{line.time}</span>
      <fetcher.Form method="post">
        <input type="hidden" name="intent" value="strike" />
        <input type="hidden" name="id" value={line.id} />
        <button
          type="submit"
          name="struck"
          value={line.struck ? "no" : "yes"}
          className="min-h-11 px-1 underline"
          aria-label={`${line.struck ? "Put back" : "Strike out"} reading ${line.number}`}
        >
          {line.struck ? "put back" : "strike"}
        </button>
      </fetcher.Form>
    </li>
  );
}
