import { Form, Link, useNavigation } from "react-router";
import { FirstSteps } from "../shell/FirstSteps";
import { CalibrationPicture } from "./CalibrationPicture";
import { LevelAndKind } from "./LevelAndKind";
import type { Progress } from "./progress.server";

interface PracticeHomeProps {
  readonly home: {
    readonly learner: string | null;
    readonly learners: readonly string[];
    readonly token: string;
    readonly circuits: readonly { readonly rowId: string; readonly title: string }[];
    readonly progress: Progress | null;
  };
  readonly problem: string | null;
}

/**
 * The start page of practice: the learner, starting a case, the lessons and what is due, and the accuracy of the
 * learner's odds.
 */
export function PracticeHome({ home, problem }: PracticeHomeProps) {
  const { learner, progress } = home;
  return (
    <main
      id="main"
      className="grid w-full min-w-0 grow grid-cols-[minmax(0,1fr)] content-start gap-5 p-5 max-md:p-3"
    >
      <header className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <div>
          <h1 className="text-2xl font-bold">Practice bay</h1>
          <p className="text-soft">Practise on simulated vehicles with hidden faults.</p>
        </div>
        {learner !== null && <Learners {...home} />}
      </header>
      {problem && (
        <p role="alert" className="border-l-4 border-danger pl-3">
          {problem}
        </p>
      )}
      {home.circuits.length === 0 && <FirstSteps />}
      {learner === null && home.circuits.length > 0 && <FirstLearner />}
      {learner !== null && progress && home.circuits.length > 0 && (
        <>
          <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-5 lg:grid-cols-2">
            <Begin home={home} learner={learner} />
            <Lessons progress={progress} />
          </div>
          <CasesAndOdds progress={progress} learner={learner} />
          <p className="flex flex-wrap gap-3">
            <a
              href={`/practice/progress/csv?learner=${encodeURIComponent(learner)}`}
              download
              className="btn"
            >
              Progress as CSV
            </a>
            <a
              href={`/practice/progress/json?learner=${encodeURIComponent(learner)}`}
              download
              className="btn"
            >
              as JSON
            </a>
            <Link to="/practice/trainer" className="btn">
              Set a fault by hand
            </Link>
          </p>
        </>
      )}
    </main>
  );
}

function Learners({ learner, learners }: PracticeHomeProps["home"]) {
  return (
    <div className="ml-auto flex flex-wrap items-end gap-3 text-base">
      {learners.length > 1 && (
        <Form className="flex items-end gap-2">
          <label className="grid gap-0.5 text-soft">
            Learner
            <select name="learner" className="field text-ink" defaultValue={learner ?? ""} key={learner}>
              {learners.map((label) => (
                <option key={label}>{label}</option>
              ))}
            </select>
          </label>
          <button type="submit" className="btn">
            Choose learner
          </button>
        </Form>
      )}
      {learners.length === 1 && <p>{learner}</p>}
      <NewLearner title="New learner: name or label" verb="Add" look="" key={learners.length} />
    </div>
  );
}

interface NewLearnerProps {
  readonly title: string;
  readonly verb: string;
  readonly look: string;
}

const NewLearner = ({ title, verb, look }: NewLearnerProps) => (
  <Form method="post" className="flex flex-wrap items-end gap-2">
    <label className="grid gap-0.5 text-soft">
      {title}
      <input name="label" required maxLength={40} autoComplete="off" className="field w-44 text-ink" />
    </label>
    <button type="submit" name="intent" value="learner" className={`btn ${look}`}>
      {verb}
    </button>
  </Form>
);

/** What the practice bay is, for the first person to open it, and the only thing it needs. */
const FirstLearner = () => (
  <section aria-labelledby="first" className="tag-card max-w-3xl">
    <div className="tag-face grid gap-3">
      <h2 id="first" className="text-lg font-semibold">
        Who is practising?
      </h2>
      <NewLearner title="Your name or label" verb="Begin" look="btn-main" />
      <p>Your cases, lessons and odds are kept under this label. Then you can:</p>
      <ul className="list-disc pl-5">
        <li>
          Start a case: a vehicle with a fault you do not know. Test it, buy the part and prove the repair.
          Minutes and money count.
        </li>
        <li>Read a debrief of each case: what every test told you, and a quicker way.</li>
        <li>Take short lessons on meters, circuits and the usual traps.</li>
      </ul>
    </div>
  </section>
);

function Begin({ home, learner }: { home: PracticeHomeProps["home"]; learner: string }) {
  const busy = useNavigation().state !== "idle";
  return (
    <section aria-labelledby="begin" className="tag-card">
      <div className="tag-face grid grid-cols-[minmax(0,1fr)] gap-3">
        <h2 id="begin" className="text-lg font-semibold">
          Start a case
        </h2>
        <Form method="post" className="grid grid-cols-[minmax(0,1fr)] gap-3">
          <input type="hidden" name="learner" value={learner} />
          <input type="hidden" name="token" value={home.token} />
          <label className="grid gap-0.5 text-base text-soft">
            Circuit
            <select name="circuit" className="field w-full text-ink">
              <option value="">any circuit on the shelf</option>
              {home.circuits.map(({ rowId, title }) => (
                <option key={rowId} value={rowId}>
                  {title}
                </option>
              ))}
            </select>
          </label>
          <LevelAndKind level="first" any={true} />
          <button
            type="submit"
            name="intent"
            value="start"
            className="btn btn-main justify-self-start"
            disabled={busy}
          >
            {busy ? "Preparing the vehicle…" : "Start case"}
          </button>
        </Form>
        <Form
          method="post"
          encType="multipart/form-data"
          className="flex flex-wrap items-end gap-2 border-t border-rule pt-3"
        >
          <input type="hidden" name="learner" value={learner} />
          <input type="hidden" name="token" value={home.token} />
          <label className="grid min-w-0 gap-0.5 text-base text-soft">
            Or open a case file from a trainer
            <input
              name="file"
              type="file"
              required
              accept=".json,application/json"
              className="field w-full min-w-0 text-ink"
            />
          </label>
          <button type="submit" name="intent" value="file" className="btn" disabled={busy}>
            Open case
          </button>
        </Form>
      </div>
    </section>
  );
}

const Lessons = ({ progress: { lessons, learner } }: { progress: Progress }) => (
  <section aria-labelledby="lessons" className="grid min-w-0 gap-1">
    <h2 id="lessons" className="text-lg font-semibold">
      Lessons
    </h2>
    <ol className="border-t border-rule">
      {lessons.map(({ id, title, done, answered, right, due, next }) => (
        <li key={id} className="border-b border-rule">
          <Link
            to={`/practice/lessons/${id}?learner=${encodeURIComponent(learner)}`}
            className="flex min-h-11 items-center gap-3 no-underline"
          >
            <span
              aria-hidden="true"
              className={`inline-block size-2.5 shrink-0 rounded-full border-2 border-current ${done ? "bg-current" : ""}`}
            />
            <span className="grow underline">{title}</span>
            <span className="shrink-0 text-base text-soft">
              {due.length > 0 ? (
                <b className="text-feed">due again</b>
              ) : answered === 0 ? (
                "new"
              ) : (
                `${right} of ${answered}${next ? `, again ${next}` : ""}`
              )}
            </span>
            {done && <span className="sr-only">, done</span>}
          </Link>
        </li>
      ))}
    </ol>
  </section>
);

const Cases = ({ progress: { cases } }: { progress: Progress }) => (
  <section aria-labelledby="cases" className="grid min-w-0 gap-1">
    <h2 id="cases" className="text-lg font-semibold">
      Your cases
    </h2>
    {cases.length === 0 && <p className="sheet-card p-4">None yet. Start the first case above.</p>}
    <ul className="grid">
      {cases.slice(0, 12).map(({ id, title, began, over, minutes, money, comebacks }) => (
        <li key={id} className="border-b border-rule">
          <Link
            to={`/practice/cases/${id}${over ? "/debrief" : ""}`}
            className="flex min-h-11 flex-wrap items-center gap-x-3 py-1"
          >
            <span className="grow">{title}</span>
            <span className="text-base text-soft">
              {began} · {over === "held" ? "held" : over === "gave-up" ? "given up" : "in progress"}
              {comebacks > 0 && `, came back ${comebacks === 1 ? "once" : `${comebacks} times`}`} · {minutes}{" "}
              · {money}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  </section>
);

interface CasesAndOddsProps {
  readonly progress: Progress;
  readonly learner: string;
}

/** The learner's cases, and whether the odds in them were accurate. */
function CasesAndOdds({ progress, learner }: CasesAndOddsProps) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-5 lg:grid-cols-2">
      <Cases progress={progress} />
      <section aria-labelledby="odds" className="grid min-w-0 gap-2">
        <h2 id="odds" className="text-lg font-semibold">
          How good are your odds?
        </h2>
        {progress.calibration ? (
          <CalibrationPicture said={progress.said} calibration={progress.calibration} learner={learner} />
        ) : (
          <p className="sheet-card p-4">
            Before every purchase you say how sure you are. This shows whether you are right that often.
          </p>
        )}
      </section>
    </div>
  );
}
