import { percent } from "@core/units/wording";
import type { Dispatch, SetStateAction } from "react";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { plainSheet } from "../sheet/plainSheet";
import { LaidOutSheet } from "../sheet/SheetView";
import { Details } from "../ui/Details";
import { Picture } from "../ui/Picture";
import type { DebriefData } from "./debriefView.server";

type Step = DebriefData["steps"][number];

/** The debrief of a case, step by step. */
export function DebriefPage({ debrief }: { debrief: DebriefData }) {
  const { steps } = debrief;
  const [at, setAt] = useState(0);
  const step = steps[at];
  const move = (by: number): void => setAt(Math.min(steps.length - 1, Math.max(0, at + by)));
  return (
    <main
      id="main"
      className="grid w-full min-w-0 grow grid-cols-[minmax(0,1fr)] content-start gap-4 p-5 max-md:p-3"
    >
      <header className="grid gap-1">
        <p className="text-base text-soft">
          {debrief.title} · {debrief.learner}
        </p>
        <h1 className="text-2xl font-bold">{debrief.held ? "The repair held." : "Not found this time."}</h1>
        <p>
          “{debrief.says}” It was{" "}
          <b data-testid="truth" data-fault={debrief.truth.fault}>
            {debrief.truth.words}
          </b>
          .
        </p>
      </header>
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]">
        <section aria-labelledby="steps" className="grid min-w-0 gap-2">
          <h2 id="steps" className="text-lg font-semibold">
            Step by step
          </h2>
          {steps.length === 0 && <p className="sheet-card p-4">No action was taken.</p>}
          <StepList steps={steps} at={at} setAt={setAt} move={move} />
          <Stood debrief={debrief} step={step} />
        </section>
        {step && <StepCard step={step} onMove={move} last={at === steps.length - 1} first={at === 0} />}
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-5 lg:grid-cols-2">
        <Ways debrief={debrief} />
        <Told debrief={debrief} />
      </div>
      <p className="flex flex-wrap gap-3">
        <Link to={`/practice?learner=${encodeURIComponent(debrief.learner)}`} className="btn btn-main">
          Next vehicle
        </Link>
        <button type="button" className="btn no-print" onClick={() => window.print()}>
          Print
        </button>
      </p>
    </main>
  );
}

/** The worth of a test relative to the best one, in words and as a bar. */
function Mark({ step }: { step: Step }) {
  const { own, best, said, engineOdds } = step;
  if (said !== null && engineOdds !== null)
    return (
      <span className="figures shrink-0">
        {percent(said)} <span className="text-soft">/ {percent(engineOdds)}</span>
      </span>
    );
  if (!own || !best) return null;
  const share = Math.min(1, own.rate / Math.max(1e-9, best.rate));
  return (
    <span className="flex w-28 shrink-0 items-center gap-2">
      <span className="h-2.5 w-14 border border-[var(--edge)]" aria-hidden="true">
        <span className="block h-full bg-ground" style={{ width: `${Math.round(100 * share)}%` }} />
      </span>
      <span className="figures">{percent(share)}</span>
    </span>
  );
}

/** The drawing as the vehicle truly was at the step, with its fault: what every point would have shown. */
function Stood({ debrief, step }: { debrief: DebriefData; step: Step | undefined }) {
  const stood = step?.stood ?? null;
  const { circuit, layout } = debrief;
  const sheet = useMemo(
    () => stood && plainSheet(circuit, stood.state, { probe: stood.probe, unplugged: stood.unplugged }),
    [circuit, stood],
  );
  if (!sheet || !stood) return null;
  return (
    <figure className="grid gap-1">
      <figcaption className="text-base text-soft">
        The vehicle at that moment, key {stood.state.key}, speed {stood.state.setting}, with the fault in it
        and all parts at nominal values.
      </figcaption>
      <div className="sheet-card sheet-pane relative h-[24rem]">
        <LaidOutSheet layout={layout} fileName={`practice-${debrief.id}`} focus={stood.probe} sheet={sheet} />
      </div>
    </figure>
  );
}

interface StepCardProps {
  readonly step: Step;
  readonly onMove: (by: number) => void;
  readonly first: boolean;
  readonly last: boolean;
}

/** One step: belief before and after, what it ruled out, and what would have told more. */
function StepCard({ step, onMove, first, last }: StepCardProps) {
  const most = (part: string): number => Math.max(of(step.before, part), of(step.after, part));
  const of = (odds: Step["before"], part: string): number => odds.find((own) => own.part === part)?.p ?? 0;
  const parts = [...new Set([...step.before, ...step.after].map(({ part }) => part))]
    .sort((a, b) => most(b) - most(a))
    .slice(0, 6);
  const wordsOf = (part: string): string =>
    [...step.after, ...step.before].find((own) => own.part === part)?.words ?? part;
  return (
    <section aria-labelledby="step" className="sheet-card grid gap-3 p-4 lg:sticky lg:top-4">
      <div className="flex items-center justify-between gap-2">
        <h2 id="step" className="text-lg font-semibold">
          Step {step.number}
        </h2>
        <span className="no-print flex gap-2">
          <button type="button" className="btn px-3 text-base" disabled={first} onClick={() => onMove(-1)}>
            Previous{" "}
          </button>
          <button type="button" className="btn px-3 text-base" disabled={last} onClick={() => onMove(1)}>
            Next{" "}
          </button>
        </span>
      </div>
      {step.own && step.best && <StepFigures own={step.own} best={step.best} lost={step.lost} />}
      {step.said !== null && step.engineOdds !== null && (
        <p>
          You said {percent(step.said)}. The evidence so far made it {percent(step.engineOdds)}.
          {Math.abs(step.said - step.engineOdds) > 0.2 &&
            (step.said > step.engineOdds
              ? " Another test would have been cheaper than a wrong part."
              : " The evidence was stronger than you thought.")}
        </p>
      )}
      {step.proof && (
        <p>
          {step.proof.proved
            ? "You had the proof that it was bad."
            : step.proof.missing
              ? `It was not proved bad yet. This was missing: ${step.proof.missing}.`
              : "It was not proved bad."}
        </p>
      )}
      <table className="w-full text-base">
        <caption className="text-left text-soft">How likely each part was, before and after</caption>
        <tbody>
          {parts.map((part) => (
            <tr key={part} className="border-b border-rule">
              <th scope="row" className="py-1 pr-2 text-left font-normal">
                {wordsOf(part)}
              </th>
              <td className="figures w-28 text-right text-soft">{percent(of(step.before, part))}</td>
              <td className="figures w-28 text-right font-bold">{percent(of(step.after, part))}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {step.ruledOut.length > 0 && (
        <p className="text-base">
          <span className="text-soft">Ruled out:</span> {step.ruledOut.join(", ")}
        </p>
      )}
    </section>
  );
}

const wayTitles = {
  own: "You",
  airway: "Airway",
  chart: "Fixed test order",
  guess: "Swapping parts on a guess",
} as const;

/** Other ways of working on the same vehicle. */
function Ways({ debrief: { ways, held } }: { debrief: DebriefData }) {
  const keys = Object.keys(wayTitles) as (keyof typeof wayTitles)[];
  return (
    <section aria-labelledby="ways" className="grid content-start gap-2">
      <h2 id="ways" className="text-lg font-semibold">
        Other ways of working on the same vehicle
      </h2>
      <table className="w-full text-base">
        <thead>
          <tr className="text-left text-soft">
            {["who", "time", "money", "fitted", "wrong parts"].map((title) => (
              <th key={title} scope="col" className="border-b border-rule py-1 pr-2 font-normal">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {keys.map((key) => (
            <tr key={key} data-way={key} className={key === "own" ? "bg-mark" : ""}>
              <th scope="row" className="border-b border-rule py-1.5 pr-2 text-left">
                {wayTitles[key]}
                {key === "own" && !held && ", given up"}
              </th>
              <td className="figures border-b border-rule pr-2">
                {ways[key].minutes}
                <span className="block text-soft">
                  {ways[key].visits} {ways[key].visits === 1 ? "visit" : "visits"}
                </span>
              </td>
              <td className="figures border-b border-rule pr-2">{ways[key].money}</td>
              <td className="border-b border-rule pr-2">{ways[key].fitted || "nothing"}</td>
              <td className="figures border-b border-rule">{ways[key].wrong}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-base text-soft">
        A visit is a trip to one place of the vehicle while testing. Time at the shop's hourly rate, parts at
        its prices, plus the cost of comebacks. If a way ends at the wrong part, the right one is then taken
        as known.
      </p>
    </section>
  );
}

/** What each test told per minute, compared with the best one. */
function Told({ debrief: { steps, id, brier } }: { debrief: DebriefData }) {
  const tests = steps.flatMap(({ number, own, best }) =>
    own && best ? [{ number, own: own.rate, best: best.rate }] : [],
  );
  return (
    <section aria-label="What the tests told" className="grid content-start gap-2">
      {tests.length > 0 && (
        <Picture
          title="Information per minute: your test and the best one at that moment"
          words={tests
            .map(({ number, own, best }) => `step ${number}: ${own.toFixed(3)} of ${best.toFixed(3)}`)
            .join("; ")}
          file={`practice-${id}`}
          of={JSON.stringify(tests)}
          height={230}
          configure={(colours) => ({
            type: "bar",
            data: {
              labels: tests.map(({ number }) => `step ${number}`),
              datasets: [
                { label: "your test", data: tests.map(({ own }) => own), backgroundColor: colours.feed },
                { label: "best test", data: tests.map(({ best }) => best), backgroundColor: colours.ground },
              ],
            },
            options: {
              scales: { y: { beginAtZero: true, title: { display: true, text: "bits per minute" } } },
              plugins: { legend: { position: "bottom" } },
            },
          })}
        />
      )}
      {brier !== null && (
        <p className="text-base">
          How well your odds held here (Brier score): <b className="figures">{brier.toFixed(3)}</b>{" "}
          <span className="text-soft">(0 is perfect; 0.25 is a coin toss)</span>
        </p>
      )}
    </section>
  );
}

interface StepListProps {
  readonly steps: DebriefData["steps"];
  readonly at: number;
  readonly setAt: Dispatch<SetStateAction<number>>;
  readonly move: (by: number) => void;
}

/** The steps of the case. */
function StepList({ steps, at, setAt, move }: StepListProps) {
  return (
    <ol className="grid">
      {steps.map((own, index) => (
        <li key={own.number}>
          <button
            type="button"
            aria-current={index === at ? "step" : undefined}
            className="flex min-h-11 w-full items-center gap-3 border-b border-rule px-2 py-1 text-left text-base aria-[current=step]:bg-mark"
            onClick={() => setAt(index)}
            onKeyDown={({ key }) => {
              if (key === "ArrowDown") move(1);
              if (key === "ArrowUp") move(-1);
            }}
          >
            <span className="figures w-16 shrink-0 text-soft">{own.clock}</span>
            <span className="min-w-0 grow">
              {own.what}
              {own.came && (
                <>
                  : <b>{own.came}</b>
                </>
              )}
            </span>
            <Mark step={own} />
          </button>
        </li>
      ))}
    </ol>
  );
}

interface StepFiguresProps {
  readonly own: NonNullable<Step["own"]>;
  readonly best: NonNullable<Step["best"]>;
  readonly lost: number;
}

/** What the step told, and what the best test would have told. */
function StepFigures({ own, best, lost }: StepFiguresProps) {
  return (
    <div className="text-base">
      <p>
        Per minute this test was expected to tell {percent(own.rate / Math.max(1e-9, best.rate))} of what the
        best one would: {best.words}.
      </p>
      <Details>
        This test: {own.bits.toFixed(2)} bits in {own.minutes}, {own.rate.toFixed(3)} bits per minute. Best
        test: {best.bits.toFixed(2)} bits in {best.minutes}, {best.rate.toFixed(3)} bits per minute. Lost:{" "}
        {lost.toFixed(3)} bits per minute.
      </Details>
    </div>
  );
}
