import { QueuedForm } from "../entries/QueuedForm";

/** A reading by place in the list. */
export interface SeenEvidenceLine {
  readonly id: string;
  readonly number: number;
  /** Key of its test. */
  readonly testKey: string;
  readonly what: string;
  readonly result: string;
  /** Who took it; null if that is not known. */
  readonly takenBy: string | null;
  readonly time: string;
  readonly heard: boolean;
  readonly struck: boolean;
  readonly doubted: boolean;
}

interface SeenEvidenceProps {
  readonly lines: readonly SeenEvidenceLine[];
  /** False once the job went on with its circuit. */
  readonly open: boolean;
}

/** The readings by place, the newest first; each can be deleted and restored. */
export function SeenEvidence({ lines, open }: SeenEvidenceProps) {
  const active = lines.filter(({ struck }) => !struck).length;
  return (
    <section aria-labelledby="seen-evidence">
      <h2 id="seen-evidence" className="text-base font-semibold text-soft">
        Evidence, <span data-testid="active-readings">{active}</span> {active === 1 ? "reading" : "readings"}
      </h2>
      {lines.length === 0 && (
        <p className="text-base text-soft">No evidence yet. Say what each speed does.</p>
      )}
      <ol className="mt-1 border-b border-rule text-base" reversed>
        {[...lines].reverse().map(({ id, number, what, result, takenBy, time, heard, struck, doubted }) => (
          <li key={id} className="flex items-center gap-2 border-t border-rule" data-reading={number}>
            <span className={`grow py-1 ${struck ? "text-soft line-through" : ""}`}>
              <span className="figures text-soft">{number}.</span> {what}: <b>{result}</b>
              {takenBy && <span className="text-soft"> ({takenBy})</span>}
              {heard && <span className="text-soft"> (complaint)</span>}
              {doubted && <span className="text-danger"> (not explained; take it again)</span>}
            </span>
            <span className="figures text-soft">{time}</span>
            {open && (
              <QueuedForm words={() => `reading ${number} ${struck ? "restored" : "deleted"}`}>
                <input type="hidden" name="intent" value="strike" />
                <input type="hidden" name="id" value={id} />
                <button
                  type="submit"
                  name="struck"
                  value={struck ? "no" : "yes"}
                  className="min-h-11 px-1 underline"
                  aria-label={`${struck ? "Restore" : "Delete"} reading ${number}`}
                >
                  {struck ? "restore" : "delete"}
                </button>
              </QueuedForm>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
