import { listed } from "@core/units/wording";
import type { SetURLSearchParams } from "react-router";
import { Form, Link, useSearchParams } from "react-router";
import { QueuedPage } from "../entries/QueuedForm";
import { CheckLine, type ProvenBy } from "./CheckLine";
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
  ["open", "Before the panels go back", "Hands out, then key on. Every speed, up and down."],
  ["closed", "Closed up", "Every speed once more: what was pinched, or rubs, shows now."],
] as const;

/** The proof run: what a sound vehicle with the new part shows at every step, against what this one does. */
export function CheckPage({ id, closed, fitted, proof, token }: CheckPageProps) {
  const [search, setSearch] = useSearchParams();
  const asked = search.get("by");
  const by = ways.find(([way]) => way === asked)?.[0] ?? "airflow";
  const failed = proof.steps.filter(({ judged }) => judged !== null && judged !== "right");
  const waiting = proof.steps.filter(({ judged }) => judged === null).length;
  return (
    <main id="main" className="grid w-full max-w-3xl gap-3 px-5 py-3">
      <p className="text-base text-soft">
        Fitted: {fitted}. Tap what each step does; amps and volts are held against this circuit with the new
        part in it, engine off.
      </p>
      <p role="status" className="font-semibold">
        {failed.length > 0
          ? `${failed.length} ${failed.length === 1 ? "step" : "steps"} not as expected: ${listed(failed.map(({ title }) => title))}.`
          : waiting > 0
            ? `${waiting} to go.`
            : "Every step as expected: the repair is proven."}
      </p>
      <AirBy by={by} setSearch={setSearch} />
      <QueuedPage to={`/jobs/${id}/checks`}>
        {phases.map(([phase, title, hint]) => (
          <PhaseSection key={phase} phase={phase} title={title} hint={hint} proof={proof} by={by} />
        ))}
      </QueuedPage>
      {failed.some(({ finding, judged }) => finding?.by === "amps" && judged === "too-high") && (
        <p>
          It draws more than a sound motor does here.{" "}
          <Link to={`/jobs/${id}/motor`} className="underline">
            What would draw so much, and what it does to the new part
          </Link>
        </p>
      )}
      {failed.length > 0 && !closed && (
        <Form method="post" className="grid gap-2">
          <input type="hidden" name="token" value={token} />
          <button className="btn btn-main justify-self-start" type="submit" name="intent" value="back">
            Back to probing with this
          </button>
          <p className="text-base text-soft">
            What the new part would have cured is then ruled out, what was seen before keeps its weight, and
            this run's findings are new readings.
          </p>
        </Form>
      )}
      {proof.whole === "proven" && (
        <Link to={`/jobs/${id}/close`} className="btn btn-main justify-self-start">
          On to closing
        </Link>
      )}
    </main>
  );
}

interface AirByProps {
  readonly by: ProvenBy;
  readonly setSearch: SetURLSearchParams;
}

/** How the air is judged. */
function AirBy({ by, setSearch }: AirByProps) {
  return (
    <fieldset className="flex flex-wrap items-center gap-2">
      <legend className="sr-only">Proven by</legend>
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
  readonly title: "Before the panels go back" | "Closed up";
  readonly hint:
    | "Hands out, then key on. Every speed, up and down."
    | "Every speed once more: what was pinched, or rubs, shows now.";
  readonly proof: CheckPageProps["proof"];
  readonly by: ProvenBy;
}

/** The steps of one phase. */
function PhaseSection({ phase, title, hint, proof, by }: PhaseSectionProps) {
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
    </section>
  );
}
