import { minutesText } from "@core/units/wording";
import { workTitles } from "@words/workWords";
import { useCallback, useState } from "react";
import { Form, Link, useNavigation } from "react-router";
import { NoteDialog, type NoteSubject } from "../notes/Notes";
import { NotesProvider } from "../notes/useNotes";
import { amountText, priceText } from "../text/money";
import { EarlierRound } from "./EarlierRound";
import { LineCard } from "./LineCard";
import { LineForm } from "./LineForm";
import type { WorkData } from "./workView.server";

type Line = WorkData["rounds"][number]["lines"][number];
type Round = WorkData["rounds"][number];

interface WorkPageProps {
  readonly work: WorkData;
  /** Why the last entry was refused, and the id of its line; null for a new line. */
  readonly problem: { readonly text: string; readonly id: string | null } | null;
}

/** The work list of a job, round by round: what was found has to be done, is planned, or was done. */
export function WorkPage({ work, problem }: WorkPageProps) {
  const present = work.rounds.at(-1);
  const closeNote = useCallback(() => setSubject(null), []);
  const [subject, setSubject] = useState<NoteSubject | null>(null);
  return (
    <NotesProvider jobId={work.id}>
      <main
        id="main"
        className="grid w-full max-w-5xl grid-cols-[minmax(0,1fr)] content-start gap-5 p-5 max-md:p-3"
      >
        <header>
          <h2 className="text-2xl font-bold">Work list</h2>
          <p className="text-soft">
            Everything done on this visit, one line each. The final check, the card and the bill follow from
            it.
          </p>
        </header>
        {work.rounds.slice(0, -1).map((round) => (
          <EarlierRound key={round.number} round={round} open={work.open} />
        ))}
        {work.proposals.length > 0 && <Proposals work={work} />}
        {present && <PresentRound work={work} round={present} problem={problem} note={setSubject} />}
        {work.deleted.length > 0 && work.open && <Deleted lines={work.deleted} />}
        <Onwards work={work} />
        <NoteDialog subject={subject} onClose={closeNote} />
      </main>
    </NotesProvider>
  );
}

/** Lines that the verdict and the findings ask for, each added with one tap. */
function Proposals({ work }: { work: WorkData }) {
  const busy = useNavigation().state !== "idle";
  return (
    <section aria-labelledby="proposed" className="grid gap-2">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h3 id="proposed" className="text-lg font-semibold">
          What the findings and the new parts ask for
        </h3>
        {work.proposals.length > 1 && (
          <Form method="post">
            <input type="hidden" name="token" value={work.token} />
            <button type="submit" name="intent" value="add-all" className="btn" disabled={busy}>
              Add all {work.proposals.length}
            </button>
          </Form>
        )}
      </div>
      <ul className="grid gap-2">
        {work.proposals.map(
          ({ key, part, what, done, why, minutes, priceMinor, number, adapts, warrantyMonths }) => (
            <li key={key} className="sheet-card p-3">
              <Form method="post" className="flex flex-wrap items-center gap-x-4 gap-y-1">
                <input type="hidden" name="intent" value="add" />
                <input type="hidden" name="token" value={`${work.token}-${key}`} />
                <input type="hidden" name="part" value={part ?? ""} />
                <input type="hidden" name="what" value={what} />
                {number && <input type="hidden" name="number" value={number} />}
                {warrantyMonths !== null && (
                  <input type="hidden" name="warrantyMonths" value={warrantyMonths} />
                )}
                {adapts && <input type="hidden" name="adaptsPart" value={adapts.part} />}
                {adapts && <input type="hidden" name="adaptsWork" value={adapts.work} />}
                <input type="hidden" name="done" value={done} />
                <input type="hidden" name="plannedMinutes" value={minutes} />
                {priceMinor !== null && (
                  <input type="hidden" name="price" value={amountText(priceMinor, work.currency)} />
                )}
                <span className="min-w-0 grow">
                  <b>{what}</b>: {workTitles[done]}
                  {number && ` (${number})`} <span className="text-soft">({why})</span>
                </span>
                <span className="figures text-soft">
                  {minutesText(minutes)}
                  {priceMinor !== null && ` · ${priceText(priceMinor, work.currency)}`}
                </span>
                <button type="submit" className="btn" disabled={busy} aria-label={`Add to the list: ${what}`}>
                  Add to the list
                </button>
              </Form>
            </li>
          ),
        )}
      </ul>
    </section>
  );
}

interface PresentRoundProps extends WorkPageProps {
  readonly round: Round;
  readonly note: (subject: NoteSubject) => void;
}

/** The lines of the present round, and a form for another one. */
function PresentRound({ work, round, problem, note }: PresentRoundProps) {
  const { minutes, togetherMinutes, priceMinor } = work.totals;
  return (
    <section aria-labelledby="present" className="grid gap-2">
      <h3 id="present" className="text-lg font-semibold">
        {work.rounds.length > 1 ? `Round ${round.number}` : "On the list"}
      </h3>
      {round.lines.length === 0 && (
        <p className="sheet-card p-4">
          {work.open
            ? "Nothing yet. Add what the findings ask for, or a line of your own."
            : "Nothing was listed on this job."}
        </p>
      )}
      <ul className="grid gap-2">
        {round.lines.map((line) => (
          <LineCard
            key={line.id}
            work={work}
            line={line}
            note={note}
            problem={problem?.id === line.id ? problem.text : null}
          />
        ))}
      </ul>
      {(minutes > 0 || priceMinor > 0) && (
        <p className="text-soft">
          {minutes > 0 && `${minutesText(minutes)} planned in this round. `}
          {togetherMinutes > 0 &&
            togetherMinutes < minutes &&
            `About ${minutesText(togetherMinutes)} if done together, because they share removal steps. `}
          {priceMinor > 0 && `Parts ${priceText(priceMinor, work.currency)} over all rounds.`}
        </p>
      )}
      {work.open && (
        <details
          // A stored line changes the token, so that the form is emptied and closed.
          key={work.token}
          className="sheet-card p-4"
          open={(problem !== null && problem.id === null) || undefined}
        >
          <summary className="min-h-11 cursor-pointer py-2 font-bold underline">Add a line</summary>
          <LineForm work={work} intent="add" problem={problem?.id === null ? problem.text : null} />
        </details>
      )}
    </section>
  );
}

/** Deleted lines of work, which can be restored. */
function Deleted({ lines }: { lines: readonly Line[] }) {
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 underline">Deleted lines ({lines.length})</summary>
      <ul>
        {lines.map((line) => (
          <li key={line.id}>
            <Form method="post" className="flex flex-wrap items-center gap-3">
              <input type="hidden" name="id" value={line.id} />
              <s className="text-soft">{line.words}</s>
              <button type="submit" name="intent" value="restore" className="min-h-11 underline">
                Restore {line.name}
              </button>
            </Form>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** The one next step. */
function Onwards({ work }: { work: WorkData }) {
  const busy = useNavigation().state !== "idle";
  const lines = work.rounds.at(-1)?.lines ?? [];
  const before = work.stage === "probing" || work.stage === "part-awaited";
  if (work.stage === "closed")
    return (
      <p>
        <Link to={`/jobs/${work.id}/close`}>Go to the card</Link>
      </p>
    );
  if (!before)
    return (
      <Link to={`/jobs/${work.id}/prove`} className="btn btn-main justify-self-start">
        Continue to the final check
      </Link>
    );
  if (lines.length === 0)
    return (
      <Link to={`/jobs/${work.id}/verdict`} className="btn justify-self-start">
        Back to the verdict
      </Link>
    );
  return (
    <Form method="post">
      {work.verdict.state === "open" && (
        <p className="mb-2">
          The verdict is not certain yet. Work done now is done on odds, not on proof: see the{" "}
          <Link to={`/jobs/${work.id}/verdict`}>verdict</Link> for what that costs.
        </p>
      )}
      <button type="submit" name="intent" value="finish" className="btn btn-main" disabled={busy}>
        All work is done: go to the final check
      </button>
    </Form>
  );
}
