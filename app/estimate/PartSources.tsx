import { useFetcher } from "react-router";
import { priceText } from "../text/money";
import { Fold } from "../ui/Fold";
import type { EstimateData } from "./estimateView.server";

type Wanted = EstimateData["sources"][number];

/** Where each new part can be had, side by side: number, price, and the day it is here. */
export function PartSources({ page }: { page: EstimateData }) {
  if (page.sources.length === 0) return null;
  return (
    <section aria-labelledby="sources" className="grid max-w-4xl gap-3">
      <h2 id="sources" className="text-lg font-bold">
        Where to get the parts
      </h2>
      {page.sources.map((wanted) => (
        <SourcesOfPart key={wanted.part} wanted={wanted} page={page} />
      ))}
    </section>
  );
}

function SourcesOfPart({ wanted, page }: { wanted: Wanted; page: EstimateData }) {
  const { currency } = page.terms;
  return (
    <section className="sheet-card p-3 text-base" aria-label={`Sources of ${wanted.name}`}>
      <h3 className="font-semibold">
        {wanted.name}: priced at{" "}
        {wanted.priceMinor === null ? "nothing" : priceText(wanted.priceMinor, currency)} before markup
      </h3>
      {wanted.sources.length > 0 && (
        <ul>
          {wanted.sources.map((source) => (
            <SourceLine key={source.id} source={source} currency={currency} />
          ))}
        </ul>
      )}
      <Fold title="Add a source">
        <SourceForm wanted={wanted} page={page} />
      </Fold>
    </section>
  );
}

interface SourceLineProps {
  readonly source: Wanted["sources"][number];
  readonly currency: string;
}

/** One source of a part, to choose or delete. */
function SourceLine({ source, currency }: SourceLineProps) {
  const fetcher = useFetcher();
  const busy = fetcher.state !== "idle";
  const marks = [
    ...(source.isCheapest ? ["cheapest"] : []),
    ...(source.isEarliest ? ["here first"] : []),
  ].join(", ");
  return (
    <li className="border-t border-rule py-1" data-source={source.source}>
      <fetcher.Form method="post" className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <input type="hidden" name="id" value={source.id} />
        <span className="min-w-0 grow">
          <b>{source.source}</b>
          {source.number && <span className="figures"> {source.number}</span>}
          <span className="text-soft">
            {source.arrivesOn ? ` · here on ${source.arrivesOn}` : " · delivery not known"}
            {marks && ` · ${marks}`}
          </span>
        </span>
        <span className="figures">{priceText(source.priceMinor, currency)}</span>
        {source.chosen ? (
          <span className="font-semibold text-good">✓ chosen</span>
        ) : (
          <button type="submit" name="intent" value="source-use" className="btn px-3" disabled={busy}>
            Use<span className="sr-only"> {source.source}</span>
          </button>
        )}
        <button
          type="submit"
          name="intent"
          value="source-delete"
          className="min-h-11 px-1 underline"
          aria-label={`delete ${source.source}`}
          disabled={busy}
        >
          delete
        </button>
      </fetcher.Form>
    </li>
  );
}

/** A source as it is entered. */
function SourceForm({ wanted, page }: { wanted: Wanted; page: EstimateData }) {
  const fetcher = useFetcher<{ problem: string | null }>();
  const field = (name: string, title: string, type = "text") => (
    <label className="grid gap-0.5 text-soft">
      {title}
      <input name={name} type={type} maxLength={80} className="field w-full text-ink" />
    </label>
  );
  return (
    <fetcher.Form
      method="post"
      key={page.sources.flatMap(({ sources }) => sources).length}
      className="grid items-end gap-2 pb-2 sm:grid-cols-4"
    >
      <input type="hidden" name="token" value={page.token} />
      <input type="hidden" name="part" value={wanted.part} />
      {field("source", "Who sells it")}
      {field("number", "Part number")}
      {field("price", "Price")}
      {field("arrivesOn", "Here on", "date")}
      {fetcher.data?.problem && (
        <p role="alert" className="text-danger sm:col-span-4">
          Not saved: {fetcher.data.problem}
        </p>
      )}
      <button
        type="submit"
        name="intent"
        value="source"
        className="btn justify-self-start"
        disabled={fetcher.state !== "idle"}
      >
        Add source
      </button>
    </fetcher.Form>
  );
}
