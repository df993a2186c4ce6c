import { listed } from "@core/units/wording";
import type { SetURLSearchParams } from "react-router";
import { Form, Link, useSearchParams } from "react-router";
import { QueuedPage } from "../entries/QueuedForm";
import { CheckLine, type ProvenBy } from "./CheckLine";
import { CheckPicture } from "./CheckPicture";
import type { CheckData } from "./checkView.server";

interface CheckPageProps {
  readonly id: number;
  readonly closed: boolean;
  readonly fitted: string;
  readonly proof: CheckData;
  readonly token: string;
}

const ways: readonly (readonly [ProvenBy, string])[] = [
  ["airflow", "hand at the vent"],
  ["amps", "clamp"],
  ["volts", "meter at the motor"],
];
const phases = [
  ["open", "Before the panels go back", "Hands out of the wheel, then key on. Try every speed, up and down."],
  [
    "closed",
    "After the panels are back",
    "Try every speed once more. A pinched wire or a rubbing wheel shows now.",
  ],
] as const;

/** The final check: for every step, what a sound vehicle with the new part shows, and what this one does. */
export function CheckPage({ id, closed, fitted, proof, token }: CheckPageProps) {
  const [search, setSearch] = useSearchParams();
  const asked = search.get("by");
  const by = ways.find(([way]) => way === asked)?.[0] ?? "airflow";
  const failed = proof.steps.filter(({ judged }) => judged !== null && judged !== "right");
  const waiting = proof.steps.filter(({ judged }) => judged === null).length;
  return (
    <main
      id="main"
      className="grid w-full max-w-7xl grid-cols-[minmax(0,1fr)] items-start gap-3 px-5 py-3 max-md:px-3 lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]"
    >
      <div className="grid gap-3">
        <p className="text-base text-soft">
          Done: {fitted}. Tap what you find at each step. Amps and volts are compared with what this circuit
          should show with the new part, engine off.
        </p>
        <p role="status" className="font-semibold">
          {failed.length > 0
            ? `${failed.length} ${failed.length === 1 ? "step is" : "steps are"} not as expected: ${listed(failed.map(({ title }) => title))}.`
            : waiting > 0
              ? `${waiting} ${waiting === 1 ? "step" : "steps"} left.`
              : "Every step is as expected: the repair is proven."}
        </p>
        <AirBy by={by} setSearch={setSearch} />
        <QueuedPage to={`/jobs/${id}/checks`}>
          {phases.map(([phase, title, hint]) => (
            <PhaseSection
              key={phase}
              phase={phase}
              title={title}
              hint={hint}
              proof={proof}
              by={by}
              closed={closed}
            />
          ))}
        </QueuedPage>
        {failed.some(({ finding, judged }) => finding?.by === "amps" && judged === "too-high") && (
          <p>
            It draws more current than a good motor does in this circuit.{" "}
            <Link to={`/jobs/${id}/motor`} className="underline">
              See what could draw this much, and what it would do to the new part
            </Link>
          </p>
        )}
        {failed.length > 0 && !closed && (
          <Form method="post" className="grid gap-2">
            <input type="hidden" name="token" value={token} />
            <button className="btn btn-main justify-self-start" type="submit" name="intent" value="back">
              Go back to probing with these results
            </button>
            <p className="text-base text-soft">
              Faults that the new part would have cured are then ruled out. Earlier readings still count, and
              the results of this check become new readings.
            </p>
          </Form>
        )}
        {proof.whole === "proven" && (
          <Link to={`/jobs/${id}/close`} className="btn btn-main justify-self-start">
            Continue to Close
          </Link>
        )}
      </div>
      <div className="grid gap-3 lg:sticky lg:top-3">
        <CheckPicture steps={proof.steps} by={by} />
      </div>
    </main>
  );
}

interface AirByProps {
  readonly by: ProvenBy;
  readonly setSearch: SetURLSearchParams;
}

/** How to judge the air. */
function AirBy({ by, setSearch }: AirByProps) {
  return (
    <fieldset className="flex flex-wrap items-center gap-2">
      <legend className="sr-only">Checked with</legend>
      {ways.map(([way, words]) => (
        <label
          key={way}
          className="btn px-3 text-base has-checked:border-ink has-checked:bg-ink has-checked:text-paper"
        >
          <input
            type="radio"
            name="by"
            value={way}
            checked={way === by}
            onChange={() => setSearch({ by: way }, { replace: true, preventScrollReset: true })}
            className="sr-only"
          />
          {words}
        </label>
      ))}
    </fieldset>
  );
}

interface PhaseSectionProps {
  readonly phase: "open" | "closed";
  readonly title: "Before the panels go back" | "After the panels are back";
  readonly hint:
    | "Hands out of the wheel, then key on. Try every speed, up and down."
    | "Try every speed once more. A pinched wire or a rubbing wheel shows now.";
  readonly proof: CheckPageProps["proof"];
  readonly by: ProvenBy;
  readonly closed: boolean;
}

/** The steps of one phase. */
function PhaseSection({ phase, title, hint, proof, by, closed }: PhaseSectionProps) {
  const waiting = proof.steps.filter((step) => step.phase === phase && step.judged === null).length;
  return (
    <section aria-labelledby={phase}>
      <h2 id={phase} className="text-lg font-bold">
        {title}
      </h2>
      <p className="pb-1 text-base text-soft">{hint}</p>
      <ol className="border-b border-rule">
        {proof.steps
          .filter((step) => step.phase === phase)
          .map((step) => (
            <CheckLine key={step.id} step={step} by={by} />
          ))}
      </ol>
      {waiting > 0 && !closed && (
        <Form method="post" preventScrollReset className="pt-2">
          <input type="hidden" name="phase" value={phase} />
          <button
            className="btn"
            type="submit"
            name="intent"
            value="rest"
            aria-label={`Mark the rest as expected: ${title.toLowerCase()}`}
          >
            Mark the rest as expected
          </button>
          <span className="block text-base text-soft">
            Only what you have tried and found so. Tap the exceptions before or after.
          </span>
        </Form>
      )}
    </section>
  );
}
