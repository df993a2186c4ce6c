import { Fragment, memo, useCallback, useState } from "react";
import { Link } from "react-router";
import { useQueue } from "../entries/browserQueue";
import { EntryForm, entriesAddress } from "../entries/useEntries";
import { WaitingForOthers, WhyWaiting } from "../entries/WhyWaiting";
import type { EvidenceLine, NoteLine } from "../job/jobView.server";
import { NoteDialog, type NoteSubject, Notes } from "../notes/Notes";
import { NotesProvider, notesAddress, useNotes } from "../notes/useNotes";

interface EvidenceProps {
  readonly jobId: number;
  readonly lines: readonly EvidenceLine[];
  /** Notes on the job as a whole. */
  readonly notes: readonly NoteLine[];
  readonly conflicts: readonly { readonly number: number; readonly why: string }[];
  /** Parts fitted that did not fix the fault, by the number of the last reading before each. */
  readonly repairs: readonly { readonly after: number; readonly name: string }[];
  /** The visit that this one is a comeback of, and what was put right then. */
  readonly earlier: { readonly job: number; readonly name: string } | null;
}

/** The readings in order; each can be deleted, restored and noted on. */
export const Evidence = memo(function Evidence(props: EvidenceProps) {
  const { jobId, lines, notes, conflicts, repairs, earlier } = props;
  const standing = lines.filter(({ struck }) => !struck).length;
  const [subject, setSubject] = useState<NoteSubject | null>(null);
  const closeNote = useCallback(() => setSubject(null), []);
  return (
    <NotesProvider jobId={jobId}>
      <section aria-labelledby="evidence">
        <div className="flex items-center justify-between gap-2">
          <h2 id="evidence" className="text-base font-semibold text-soft">
            Evidence, <span data-testid="standing">{standing}</span> {standing === 1 ? "reading" : "readings"}
          </h2>
          <button
            type="button"
            className="min-h-11 px-1 text-base underline"
            aria-label="Add a note to this job"
            onClick={() => setSubject({ reading: null, title: "Add a note to this job" })}
          >
            note
          </button>
        </div>
        <Waiting jobId={jobId} />
        {lines.length === 0 && (
          <p className="text-base text-soft">No evidence yet. Enter what each speed does under Complaint.</p>
        )}
        {conflicts.map(({ number, why }) => (
          <p key={number} role="alert" className="mt-1 border-l-4 border-danger pl-2 text-base">
            {why}
          </p>
        ))}
        <Notes jobId={jobId} notes={notes} />
        <ol className="mt-1 text-base" reversed>
          {[...lines].reverse().map((line) => (
            <Fragment key={line.id}>
              <Failed repairs={repairs} after={line.number} />
              <Line
                jobId={jobId}
                line={line}
                doubted={conflicts.some(({ number }) => number === line.number)}
                onNote={setSubject}
              />
            </Fragment>
          ))}
          <Failed repairs={repairs} after={0} />
          {earlier && (
            <li className="list-none border-t-2 border-danger py-1 pl-2">
              <b>
                A comeback of <Link to={`/jobs/${earlier.job}`}>job {earlier.job}</Link>
                {earlier.name && `: ${earlier.name}`}.
              </b>{" "}
              <span className="text-soft">
                What that visit left open counts for half, a new fault for half.
              </span>
            </li>
          )}
        </ol>
        <NoteDialog subject={subject} onClose={closeNote} />
      </section>
    </NotesProvider>
  );
});

/** Failed repairs, between the readings before and after them. */
const Failed = ({ repairs, after }: Pick<EvidenceProps, "repairs"> & { readonly after: number }) =>
  repairs
    .filter((own) => own.after === after)
    .map(({ name }) => (
      <li key={name} className="list-none border-t-2 border-danger py-1 pl-2" data-failed-repair={name}>
        <b>{name} replaced here; the repair did not hold.</b>{" "}
        <span className="text-soft">Readings below this line still count.</span>
      </li>
    ));

/** Entries not stored yet, while the server does not answer. */
function Waiting({ jobId }: { jobId: number }) {
  const { waiting, away } = useQueue();
  const { refused } = useNotes();
  const own = waiting.filter(({ to }) => to === entriesAddress(jobId) || to === notesAddress(jobId));
  return (
    <div role="status">
      <WaitingForOthers />
      {refused && (
        <p className="mt-1 border-l-4 border-danger pl-2 text-base">
          Not saved: {refused.words}. {refused.problem}
        </p>
      )}
      {away && own.length > 0 && (
        <>
          <p className="mt-1 border-l-4 border-[var(--go)] pl-2 text-base">
            <WhyWaiting />
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

interface LineProps {
  readonly jobId: number;
  readonly line: EvidenceLine;
  readonly doubted: boolean;
  readonly onNote: (subject: NoteSubject) => void;
}

/** One reading; rendered again only when it changed. */
const Line = memo(function Line({ jobId, line, doubted, onNote }: LineProps) {
  const note: NoteSubject = { reading: line.id, title: `Add a note to reading ${line.number}` };
  return (
    <li className="border-t border-rule" data-reading={line.number}>
      <div className="flex items-center gap-2">
        <span className={`grow py-1 ${line.struck ? "text-soft line-through" : ""}`}>
          <span className="figures text-soft">{line.number}.</span> {line.what}: <b>{line.result}</b>
          {line.heard && <span className="text-soft"> (complaint)</span>}
          {line.source && <span className="text-soft"> (by {line.source})</span>}
          {line.takenBy && <span className="text-soft"> ({line.takenBy})</span>}
          {doubted && <span className="text-danger"> (in doubt)</span>}
        </span>
        <span className="figures text-soft">{line.time}</span>
        <button
          type="button"
          className="min-h-11 px-1 underline"
          aria-label={note.title}
          onClick={() => onNote(note)}
        >
          note
        </button>
        <EntryForm>
          <input type="hidden" name="intent" value="strike" />
          <input type="hidden" name="id" value={line.id} />
          <button
            type="submit"
            name="struck"
            value={line.struck ? "no" : "yes"}
            className="min-h-11 px-1 underline"
            aria-label={`${line.struck ? "Restore" : "Delete"} reading ${line.number}`}
          >
            {line.struck ? "restore" : "delete"}
          </button>
        </EntryForm>
      </div>
      <Notes jobId={jobId} notes={line.notes} />
    </li>
  );
}, sameLine);

/** A reading changes only if it was deleted, restored, noted on or questioned. */
function sameLine(before: LineProps, now: LineProps): boolean {
  const state = ({ line, doubted, jobId }: LineProps): string =>
    JSON.stringify([jobId, line.id, line.struck, line.notes, doubted]);
  return state(before) === state(now);
}
