import { listCircuits } from "@db/repositories/circuits.server";
import { deleteJob, findJob } from "@db/repositories/jobs.server";
import { countRecords, findRecords, recordChoices } from "@db/repositories/records.server";
import { listVehicles } from "@db/repositories/vehicles.server";
import { faultLabelWords, kindWords } from "@words/partName";
import { data, Form, Link, redirect, useSearchParams } from "react-router";
import { z } from "zod";
import { RecordsPage } from "../records/RecordsPage";
import { RecordTable } from "../records/RecordTable";
import { pageLength, recordQuery } from "../records/recordQuery";
import { recordRows } from "../records/recordRows.server";
import { sentForm } from "../shell/sentForm.server";
import { Fold } from "../ui/Fold";
import type { Route } from "./+types/records";

export const meta: Route.MetaFunction = () => [{ title: "Records · Airway" }];

export async function loader({ request }: Route.LoaderArgs) {
  const { searchParams } = new URL(request.url);
  const query = recordQuery(searchParams);
  const [lines, count, choices, circuits, vehicles] = await Promise.all([
    findRecords(query),
    countRecords(query),
    recordChoices(),
    listCircuits(),
    listVehicles(),
  ]);
  const deleted = z.coerce.number().int().positive().safeParse(searchParams.get("deleted"));
  return {
    query,
    count,
    pages: Math.max(1, Math.ceil(count / pageLength)),
    rows: await recordRows(lines),
    choices: {
      faults: choices.faults.map((name) => {
        const space = name.indexOf(" ");
        return { name, words: faultLabelWords(name.slice(0, space), name.slice(space + 1)) };
      }),
      parts: choices.parts,
      vehicles: vehicles.map(({ id, label, model }) => ({ name: String(id), words: `${label}, ${model}` })),
      circuits: circuits.map(({ shelfId, title }) => ({ name: shelfId, words: title })),
    },
    deleted: deleted.success ? deleted.data : null,
  };
}

const form = z.object({
  intent: z.enum(["delete", "put-back"]),
  job: z.coerce.number().int().positive(),
});

export async function action({ request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  const job = parsed.success ? await findJob(parsed.data.job) : null;
  if (!parsed.success || !job) throw data("There is no such job.", { status: 404 });
  const away = parsed.data.intent === "delete";
  await deleteJob(job.id, away ? new Date() : null);
  return redirect(away ? `/records?deleted=${job.id}` : `/jobs/${job.id}/close`);
}

const outcomes = [
  ["open", "still open"],
  ["held", "held"],
  ["came-back", "came back"],
  ["deleted", "deleted"],
] as const;

export default function Records({ loaderData }: Route.ComponentProps) {
  const { query, count, pages, rows, choices, deleted } = loaderData;
  const [search] = useSearchParams();
  const asked = query.words || query.circuit || query.fault || query.part || query.outcome || query.vehicle;
  const at = (page: number): string => {
    const next = new URLSearchParams(search);
    next.set("page", String(page));
    return `?${next}`;
  };
  return (
    <RecordsPage title="Records" width="max-w-7xl">
      {deleted !== null && (
        <Form method="post" className="sheet-card flex flex-wrap items-center gap-3 p-3" role="status">
          <input type="hidden" name="job" value={deleted} />
          Job {deleted} is deleted. The shop no longer learns from it.
          <button type="submit" name="intent" value="put-back" className="btn">
            Restore it
          </button>
        </Form>
      )}
      <RecordQuery query={query} choices={choices} asked={asked} />
      <p role="status" className="text-base text-soft">
        {count} {count === 1 ? "job" : "jobs"}
        {pages > 1 && `, page ${query.page} of ${pages}`}
      </p>
      {rows.length > 0 ? (
        <RecordTable rows={rows} />
      ) : (
        <p className="sheet-card p-5">
          {asked
            ? "No job matches. Remove a filter, or show all jobs."
            : "No jobs yet. Start the first one on the board."}
        </p>
      )}
      <div className="flex flex-wrap gap-3">
        {query.page > 1 && (
          <Link to={at(query.page - 1)} className="btn">
            Newer
          </Link>
        )}
        {query.page < pages && (
          <Link to={at(query.page + 1)} className="btn">
            Older{" "}
          </Link>
        )}
        <a href="/records/file/csv" download className="btn">
          Export closed jobs as CSV
        </a>
        <a href="/records/file/json" download className="btn">
          as JSON
        </a>
        <Link to="/records/in" className="btn">
          Import records
        </Link>
      </div>
    </RecordsPage>
  );
}

interface ChoiceProps {
  readonly name: string;
  readonly title: string;
  readonly value: string;
  readonly of: readonly { readonly name: string; readonly words: string }[];
}

const Choice = ({ name, title, value, of }: ChoiceProps) => (
  <label className="grid min-w-0 gap-0.5 text-base text-soft">
    {title}
    <select name={name} defaultValue={value} className="field w-52 max-w-full text-ink max-md:w-full">
      <option value="">any</option>
      {of.map((own) => (
        <option key={own.name} value={own.name}>
          {own.words}
        </option>
      ))}
    </select>
  </label>
);

interface RecordQueryProps {
  readonly query: Route.ComponentProps["loaderData"]["query"];
  readonly choices: Route.ComponentProps["loaderData"]["choices"];
  readonly asked: string | number | null;
}

/** The search of the records, with its filters folded away unless one is set. */
function RecordQuery({ query, choices, asked }: RecordQueryProps) {
  const filters = [query.vehicle, query.circuit, query.fault, query.part, query.outcome].filter(Boolean);
  return (
    <Form className="grid gap-1">
      <div className="flex flex-wrap items-end gap-2">
        <label className="grid min-w-0 grow basis-40 gap-0.5 text-base text-soft">
          Search: vehicle, complaint, what was found, notes
          <input name="words" type="search" defaultValue={query.words} className="field w-full text-ink" />
        </label>
        <button type="submit" className="btn btn-main">
          Find
        </button>
        {asked && (
          <Link to="/records" className="btn">
            All
          </Link>
        )}
      </div>
      <Fold
        title={filters.length > 0 ? `Filters (${filters.length})` : "Filters"}
        initially={filters.length > 0}
        keeps
      >
        <div className="grid gap-2 pb-2 max-md:grid-cols-2 md:flex md:flex-wrap">
          <Choice
            name="vehicle"
            title="Vehicle"
            value={query.vehicle === null ? "" : String(query.vehicle)}
            of={choices.vehicles}
          />
          <Choice name="circuit" title="Circuit" value={query.circuit} of={choices.circuits} />
          <Choice name="fault" title="Fault" value={query.fault} of={choices.faults} />
          <Choice
            name="part"
            title="Replaced"
            value={query.part}
            of={choices.parts.map((name) => ({ name, words: kindWords(name) }))}
          />
          <Choice
            name="outcome"
            title="Outcome"
            value={query.outcome}
            of={outcomes.map(([name, words]) => ({ name, words }))}
          />
        </div>
      </Fold>
    </Form>
  );
}
