import type { FetcherWithComponents } from "react-router";
import { useFetcher } from "react-router";
import { priceText } from "../text/money";
import type { EstimateData } from "./estimateView.server";
import { quantityText } from "./quantity";

type Version = EstimateData["versions"][number];

/** One version, which never changes: it can only be approved, or followed by the next. */
export function VersionCard({ page, version }: { page: EstimateData; version: Version }) {
  const fetcher = useFetcher<{ problem: string | null }>();
  const { currency } = version.body;
  const { priced } = version;
  const file = (kind: string): string => `/jobs/${page.id}/estimate/${version.number}/${kind}`;
  return (
    <article className="sheet-card p-3 text-base" data-version={version.number}>
      <h3 className="font-bold">
        {version.kind === "bill" ? "Bill" : "Estimate"} {version.number}: {version.body.title}
      </h3>
      <p className="text-soft">
        made {version.made}
        {version.approved && (
          <>
            {" · "}
            <b className="text-good">
              ✓ approved {version.approved}, {version.approvedBy}
            </b>
          </>
        )}
      </p>
      <VersionLines priced={priced} currency={currency} version={version} />
      <p className="mt-1 flex flex-wrap gap-x-4">
        <a href={file("pdf")} download className="flex min-h-11 items-center underline">
          PDF
        </a>
        <a href={file("csv")} download className="flex min-h-11 items-center underline">
          CSV
        </a>
      </p>
      {version.kind === "estimate" && !version.approved && (
        <AnswerVersion fetcher={fetcher} version={version} />
      )}
    </article>
  );
}

interface VersionLinesProps {
  readonly priced: Version["priced"];
  readonly currency: Version["body"]["currency"];
  readonly version: Version;
}

/** The lines and the total of a version. */
function VersionLines({ priced, currency, version }: VersionLinesProps) {
  return (
    <table className="mt-1 w-full">
      <tbody>
        {priced.lines.map((line, place) => (
          <tr key={place} className="border-t border-rule align-top">
            <td>
              {line.title}
              <span className="block text-soft">
                {quantityText(line)} × {priceText(line.eachMinor, currency)}
                {line.discountMinor !== 0 ? `, ${priceText(-line.discountMinor, currency)} off` : ""}
              </span>
            </td>
            <td className="figures text-right">{priceText(line.netMinor, currency)}</td>
          </tr>
        ))}
        {priced.taxes
          .filter(({ taxMinor }) => taxMinor !== 0)
          .map(({ basisPoints, onMinor, taxMinor }) => (
            <tr key={basisPoints} className="border-t border-rule text-soft">
              <td>
                tax {basisPoints / 100} % on {priceText(onMinor, currency)}
              </td>
              <td className="figures text-right">{priceText(taxMinor, currency)}</td>
            </tr>
          ))}
        {priced.coinMinor !== 0 && (
          <tr className="border-t border-rule text-soft">
            <td>rounding</td>
            <td className="figures text-right">{priceText(priced.coinMinor, currency)}</td>
          </tr>
        )}
        <tr className="border-t-2 border-ink font-bold">
          <td>Total</td>
          <td className="figures text-right" data-testid={`total-${version.number}`}>
            {priceText(priced.totalMinor, currency)}
          </td>
        </tr>
      </tbody>
    </table>
  );
}

interface AnswerVersionProps {
  readonly fetcher: FetcherWithComponents<{ problem: string | null }>;
  readonly version: Version;
}

/** The customer's answer. */
function AnswerVersion({ fetcher, version }: AnswerVersionProps) {
  return (
    <fetcher.Form method="post" className="flex flex-wrap items-end gap-2">
      <input type="hidden" name="id" value={version.id} />
      <label className="grid grow gap-1 text-soft">
        How it was approved
        <input
          name="by"
          required
          minLength={2}
          maxLength={80}
          defaultValue="by phone"
          className="field text-ink"
        />
      </label>
      <button
        type="submit"
        name="intent"
        value="approve"
        className="btn btn-main"
        disabled={fetcher.state !== "idle"}
      >
        Approved
      </button>
      {fetcher.data?.problem && (
        <p role="alert" className="w-full text-danger">
          {fetcher.data.problem}.
        </p>
      )}
    </fetcher.Form>
  );
}
