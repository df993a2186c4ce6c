import { startOf, type Typed, workSum } from "@core/sums/benchSums";
import type { SumStart } from "@core/sums/fromCircuit";
import type { Sum, SumResult, SumWorked } from "@core/sums/sum";
import { figureIn, type Unit, units } from "@core/units/quantity";
import { useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import { Picture } from "../ui/Picture";
import { SumFieldLine } from "./SumFieldLine";
import { addressOf, askedBy } from "./sumAddress";

interface SumPageProps {
  readonly sum: Sum;
  readonly job: number | null;
  readonly jobs: readonly { readonly id: number; readonly words: string }[];
  readonly starts: readonly SumStart[];
}

/** One sum: its inputs, its results, its formula and its curve. The typed figures are in the address. */
export function SumPage({ sum, job, jobs, starts }: SumPageProps) {
  const [query, setQuery] = useSearchParams();
  const asked = useMemo(() => askedBy(sum, query), [sum, query]);
  const outcome = useMemo(() => workSum(sum, asked), [sum, asked]);
  const ask = (next: Readonly<Record<string, Typed>>): void => {
    const address = addressOf(sum, next);
    if (job !== null) address.set("job", String(job));
    setQuery(address, { replace: true, preventScrollReset: true });
  };
  const problemAt = (field: string): string | null =>
    outcome.ok ? null : (outcome.problems.find((problem) => problem.field === field)?.message ?? null);
  const own = starts.filter((start) => start.sum === sum.id);
  return (
    <section aria-labelledby="sum" className="grid min-w-0 content-start gap-4">
      <header>
        <h2 id="sum" className="text-xl font-semibold">
          {sum.title}
        </h2>
        <p className="text-soft">{sum.question}</p>
      </header>
      <div className="grid items-start gap-5 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,21rem)_minmax(0,1fr)]">
        <SumForm sum={sum} asked={asked} problemAt={problemAt} ask={ask} job={job} jobs={jobs} own={own} />
        <div className="grid min-w-0 gap-4">
          {outcome.ok ? (
            <Worked worked={outcome.value} sum={sum} />
          ) : (
            <p role="status" className="sheet-card p-4">
              {outcome.problems.map(({ message }) => message).join(" ")}
            </p>
          )}
          <dl className="border-l-4 border-rule pl-3 text-base">
            <dt className="text-soft">Formula</dt>
            <dd className="figures">{sum.formula}</dd>
            <dt className="mt-1.5 text-soft">Source</dt>
            <dd>{sum.source}</dd>
          </dl>
        </div>
      </div>
    </section>
  );
}

function Worked({ worked, sum }: { worked: SumWorked; sum: Sum }) {
  const { curve, table, notes, results } = worked;
  return (
    <>
      <dl className="sheet-card grid px-4 py-2" aria-live="polite">
        {results.map((result) => (
          <Result key={result.id} result={result} />
        ))}
      </dl>
      {curve && <CurvePicture curve={curve} sum={sum} />}
      {table && <SumTable table={table} />}
      <p
        className="sticky bottom-[var(--rail)] z-10 -mx-3 border-t-2 border-ink bg-card px-3 py-2 md:hidden"
        aria-hidden="true"
      >
        {results
          .filter(({ main }) => main)
          .map(({ title, base, quantity, unit }) => {
            const own = (units[quantity] as readonly Unit[]).find(({ id }) => id === unit);
            return own ? `${title} ${figureIn(base, own)} ${own.text}` : "";
          })
          .join(" · ")}
      </p>
      {notes.map((note) => (
        <p key={note} className="border-l-4 border-feed pl-3 text-base">
          {note}
        </p>
      ))}
    </>
  );
}

/** One result of a sum, in the chosen unit. */
function Result({ result }: { result: SumResult }) {
  const own: readonly Unit[] = units[result.quantity];
  const [unitId, setUnit] = useState(result.unit);
  const unit = own.find(({ id }) => id === unitId) ?? own[0];
  if (!unit) return null;
  return (
    <div
      className={`flex min-h-11 items-center justify-between gap-2 ${result.main ? "border-b border-rule" : ""}`}
    >
      <dt className="text-base text-soft">{result.title}</dt>
      <dd className={`flex items-center gap-2 ${result.main ? "text-2xl font-bold" : ""}`}>
        <span className="figures" data-result={result.id}>
          {figureIn(result.base, unit)}
        </span>
        {own.length > 1 ? (
          <select
            aria-label={`${result.title}, unit`}
            className="min-h-11 w-20 rounded-card bg-card px-1 text-base font-normal underline decoration-rule"
            value={unit.id}
            onChange={({ target }) => setUnit(target.value)}
          >
            {own.map(({ id, text }) => (
              <option key={id} value={id}>
                {text}
              </option>
            ))}
          </select>
        ) : (
          <span className="w-20 px-1 text-base font-normal">{unit.text}</span>
        )}
      </dd>
    </div>
  );
}

interface FromJobProps {
  readonly job: number | null;
  readonly jobs: SumPageProps["jobs"];
  readonly starts: readonly SumStart[];
  readonly onTake: (start: SumStart) => void;
}

/** Values from an open job's circuit. */
function FromJob({ job, jobs, starts, onTake }: FromJobProps) {
  const [query, setQuery] = useSearchParams();
  const choose = (id: string): void => {
    const next = new URLSearchParams(query);
    if (id === "") next.delete("job");
    else next.set("job", id);
    setQuery(next, { replace: true, preventScrollReset: true });
  };
  if (jobs.length === 0 && job === null) return null;
  return (
    <fieldset className="mt-1 grid gap-2 border-t border-rule pt-2">
      <legend className="sr-only">Values from an open job</legend>
      <label className="grid gap-0.5 text-base text-soft">
        Values from job
        <select className="field text-ink" value={job ?? ""} onChange={({ target }) => choose(target.value)}>
          <option value="">none</option>
          {job !== null && !jobs.some(({ id }) => id === job) && <option value={job}>{job}</option>}
          {jobs.map(({ id, words }) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {job !== null && starts.length === 0 && (
        <p className="text-base text-soft">This sum uses no values from a circuit.</p>
      )}
      {starts.length > 0 && (
        <div className="flex max-h-40 flex-wrap gap-1.5 overflow-y-auto">
          {starts.map((start) => (
            <button
              key={start.title}
              type="button"
              className="min-h-11 rounded-card border border-[var(--edge)] bg-card px-2.5 text-base"
              onClick={() => onTake(start)}
            >
              {start.title}
            </button>
          ))}
        </div>
      )}
    </fieldset>
  );
}

interface CurvePictureProps {
  readonly curve: NonNullable<SumWorked["curve"]>;
  readonly sum: Sum;
}

/** The sum as a curve. */
function CurvePicture({ curve, sum }: CurvePictureProps) {
  return (
    <Picture
      title={curve.title}
      words={`${curve.title}: from ${curve.points[0]?.y.toFixed(2)} to ${curve.points.at(-1)?.y.toFixed(2)} ${curve.up} between ${curve.points[0]?.x} and ${curve.points.at(-1)?.x.toFixed(1)} ${curve.across}${curve.here ? `; here ${curve.here.y.toFixed(2)} at ${curve.here.x.toFixed(2)}` : ""}.`}
      file={sum.id}
      of={JSON.stringify(curve)}
      height={210}
      configure={(colours) => ({
        type: "scatter",
        data: {
          datasets: [
            {
              data: [...curve.points],
              showLine: true,
              pointRadius: 0,
              borderColor: colours.ground,
              backgroundColor: colours.ground,
              borderWidth: 2.5,
            },
            {
              data: curve.here ? [curve.here] : [],
              pointRadius: 7,
              pointStyle: "rectRot",
              borderColor: colours.ink,
              backgroundColor: colours.feed,
            },
          ],
        },
        options: {
          scales: {
            x: {
              title: { display: true, text: curve.across },
              min: curve.points[0]?.x ?? 0,
              max: curve.points.at(-1)?.x ?? 1,
            },
            y: { title: { display: true, text: curve.up }, beginAtZero: true },
          },
          plugins: { legend: { display: false } },
        },
      })}
    />
  );
}

interface SumTableProps {
  readonly table: NonNullable<SumWorked["table"]>;
}

/** The sum as a table. */
function SumTable({ table }: SumTableProps) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys (WCAG 2.1.1)
    <div className="overflow-x-auto" tabIndex={0}>
      <table className="w-full border-collapse text-base">
        <thead>
          <tr>
            {table.head.map((title) => (
              <th
                key={title}
                scope="col"
                className="border-b border-rule py-1 pr-2.5 text-left font-normal text-soft"
              >
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.body.map((row) => (
            <tr key={row[0]} className={row[0]?.endsWith("←") ? "bg-mark" : ""}>
              {table.head.map((title, i) => (
                <td key={title} className="figures whitespace-nowrap border-b border-rule py-1 pr-2.5">
                  {row[i]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface SumFormProps {
  readonly sum: SumPageProps["sum"];
  readonly asked: Record<string, Typed>;
  readonly problemAt: (field: string) => string | null;
  readonly ask: (next: Readonly<Record<string, Typed>>) => void;
  readonly job: SumPageProps["job"];
  readonly jobs: SumPageProps["jobs"];
  readonly own: SumStart[];
}

/** The fields of the sum. */
function SumForm({ sum, asked, problemAt, ask, job, jobs, own }: SumFormProps) {
  return (
    <form
      className="grid min-w-0 gap-2"
      onSubmit={(event) => event.preventDefault()}
      aria-label={`Values of: ${sum.title}`}
    >
      {sum.fields.map((field, index) => (
        <SumFieldLine
          key={field.id}
          field={field}
          typed={asked[field.id] ?? { text: "", unit: "" }}
          problem={problemAt(field.id)}
          first={index === 0}
          onTyped={(typed) => ask({ ...asked, [field.id]: typed })}
        />
      ))}
      <p className="text-base text-soft">
        You can type a unit after a number: <kbd className="key-hint">12 ft</kbd>.{" "}
        <kbd className="key-hint">↑</kbd> <kbd className="key-hint">↓</kbd> change it in steps.
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn text-base" onClick={() => ask(startOf(sum))}>
          Reset
        </button>
      </div>
      <FromJob job={job} jobs={jobs} starts={own} onTake={(start) => ask({ ...asked, ...start.asked })} />
    </form>
  );
}
