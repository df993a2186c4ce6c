import { EntryForm, useEntries } from "../entries/useEntries";
import type { EvidenceLine, NoteLine } from "../jobView.server";
import { NoteDialog, Notes } from "./Notes";

interface EvidenceProps {
  readonly jobId: number;
  readonly lines: readonly EvidenceLine[];
  /** Notes on the job as a whole. */
  readonly notes: readonly NoteLine[];
  readonly conflicts: readonly { readonly number: number; readonly why: string }[];
}

/** What was seen, in order; each can be struck out and put back, and noted on. */
export function Evidence({ jobId, lines, notes, conflicts }: EvidenceProps) {
  const standing = lines.filter(({ struck }) => !struck).length;
  return (
    <section aria-labelledby="evidence">
      <div className="flex items-center justify-between gap-2">
        <h2 id="evidence" className="text-base font-semibold text-soft">
          Evidence, <span data-testid="standing">{standing}</span> {standing === 1 ? "reading" : "readings"}
        </h2>
        <NoteDialog jobId={jobId} reading={null} title="A note on this job" />
      </div>
      <Waiting jobId={jobId} />
      {lines.length === 0 && (
        <p className="text-base text-soft">Nothing yet. Enter what the speeds do under Heard.</p>
      )}
      {conflicts.map(({ number, why }) => (
        <p key={number} role="alert" className="mt-1 border-l-4 border-danger pl-2 text-base">
          {why}
        </p>
      ))}
      <Notes jobId={jobId} notes={notes} />
      <ol className="mt-1 text-base" reversed>
        {[...lines].reverse().map((line) => (
          <Line
            key={line.id}
            jobId={jobId}
            line={line}
            doubted={conflicts.some(({ number }) => number === line.number)}
          />
        ))}
      </ol>
    </section>
  );
}

/** What is entered and not stored yet, while the server does not answer. */
function Waiting({ jobId }: { jobId: number }) {
  const { waiting, away } = useEntries();
  const own = waiting.filter((entry) => entry.jobId === jobId);
  return (
    <div role="status">
      {away && own.length > 0 && (
        <>
          <p className="mt-1 border-l-4 border-[var(--go)] pl-2 text-base">
            The server does not answer. What you enter waits in this browser and is stored once it is back.
          </p>
          <ol className="mt-1 text-base">
            {own.map(({ id, words }) => (
              <li key={id} data-waiting={id} className="border-t border-dashed border-[var(--edge)] py-1">
                {words} <span className="text-soft">waiting</span>
              </li>
            ))}
          </ol>
        </>
      )}
    </div>
  );
}

function Line({ jobId, line, doubted }: { jobId: number; line: EvidenceLine; doubted: boolean }) {
  return (
    <li className="border-t border-rule" data-reading={line.number}>
      <div className="flex items-center gap-2">
        <span className={`grow py-1 ${line.struck ? "text-soft line-through" : ""}`}>
          <span className="figures text-soft">{line.number}.</span> {line.what}: <b>{line.result}</b>
          {line.heard && <span className="text-soft"> (heard)</span>}
          {doubted && <span className="text-danger"> (in doubt)</span>}
        </span>
        <span className="figures text-soft">{line.time}</span>
        <NoteDialog jobId={jobId} reading={line.id} title={`A note on reading ${line.number}`} />
        <EntryForm>
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
        </EntryForm>
      </div>
      <Notes jobId={jobId} notes={line.notes} />
    </li>
  );
}
