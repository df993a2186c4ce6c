import { minutesText, percent } from "@core/units/wording";
import { offerTitles } from "@words/offerWords";
import type { FetcherWithComponents } from "react-router";
import { Link, useFetcher } from "react-router";
import { NextStep } from "../job/NextStep";
import { JobMoneyNav } from "../parts/JobMoneyNav";
import { useSignedIn } from "../shell/signedIn";
import { priceText } from "../text/money";
import { BookTimes } from "./BookTimes";
import { EstimateEditor } from "./EstimateEditor";
import type { EstimateData } from "./estimateView.server";
import { OfferPicture } from "./OfferPicture";
import { PartSources } from "./PartSources";
import { VersionCard } from "./VersionCard";

/** The ways to do the repair side by side, then the versions of the chosen one, up to its bill. */
export function EstimatePage({ page, problem }: { page: EstimateData; problem: string | null }) {
  const latest = page.versions.at(-1);
  return (
    <main id="main" className="grid w-full max-w-7xl content-start gap-4 px-5 py-3 max-md:px-3">
      <JobMoneyNav jobId={page.id} here="estimate" />
      {problem && (
        <p role="alert" className="border-l-4 border-danger pl-3 font-semibold">
          Not stored: {problem}
        </p>
      )}
      {page.changed && latest && <ListChanged page={page} number={latest.number} />}
      <Offers page={page} />
      <PartSources page={page} />
      <BookTimes page={page} />
      {page.versions.length > 0 && (
        <section aria-labelledby="versions" className="grid gap-3">
          <h2 id="versions" className="text-lg font-bold">
            Versions
          </h2>
          <div className="grid items-start gap-3 lg:grid-cols-2">
            {[...page.versions].reverse().map((version) => (
              <VersionCard key={version.id} page={page} version={version} />
            ))}
          </div>
        </section>
      )}
      {page.difference && <Difference page={page} />}
      {latest && (
        <EstimateEditor
          key={latest.id}
          page={page}
          kind="estimate"
          title="The next version"
          from={latest.body}
        />
      )}
      <NextStep
        jobId={page.id}
        stage={page.stage}
        probing={{ to: "work", title: "Continue to the work list" }}
      />
      {page.billFrom && latest && (
        <EstimateEditor
          key={`bill ${latest.id} ${page.billFrom.minutes}`}
          page={page}
          kind="bill"
          title={
            page.billFrom.minutes === null
              ? "The bill, from the approved version"
              : `The bill, from the approved version and the ${minutesText(page.billFrom.minutes)} recorded`
          }
          from={page.billFrom.body}
        />
      )}
    </main>
  );
}

/** The work list is no longer the one the last version was made from. */
const ListChanged = ({ page, number }: { page: EstimateData; number: number }) => (
  <div role="status" className="border-l-4 border-danger pl-3">
    <p className="font-semibold">The work list has changed since version {number}. Make a new version.</p>
    <ul className="text-base">
      {page.changed?.added.map((words) => (
        <li key={words}>new on the list: {words}</li>
      ))}
      {page.changed?.gone.map((words) => (
        <li key={words}>no longer on the list: {words}</li>
      ))}
    </ul>
  </div>
);

function Offers({ page }: { page: EstimateData }) {
  const fetcher = useFetcher();
  const { runsShop } = useSignedIn();
  const { currency } = page.terms;
  const { recommended } = page;
  return (
    <section aria-labelledby="offers">
      <h2 id="offers" className="text-lg font-bold">
        Ways to do this job
      </h2>
      <Recommended page={page} />
      {page.shared && page.shared.apart - page.shared.together > 1 && (
        <p className="text-base">
          Together with {page.shared.name} the job takes {minutesText(page.shared.together)}, one after the
          other {minutesText(page.shared.apart)}. Shared work is charged once.
        </p>
      )}
      {page.offers.length === 0 && (
        <p className="sheet-card p-4">
          Nothing is decided yet. Go on probing, or add a line under{" "}
          <Link to={`/jobs/${page.id}/work`}>Work</Link>.
        </p>
      )}
      <ul className="mt-2 grid gap-2 sm:grid-cols-2 xl:grid-flow-col xl:auto-cols-fr xl:grid-cols-none">
        {page.offers.map((offer) => (
          <OfferCard
            key={offer.kind}
            offer={offer}
            currency={currency}
            isRecommended={recommended?.advice === "offer" && recommended.kind === offer.kind}
            fetcher={fetcher}
            page={page}
          />
        ))}
      </ul>
      {page.offers.length > 1 && (
        <div className="mt-3 max-w-4xl">
          <OfferPicture page={page} />
        </div>
      )}
      <p className="mt-1 text-base text-soft">
        At {priceText(page.terms.hourMinor, currency)} an hour, labour by{" "}
        {page.terms.labourBy === "book"
          ? "book time in tenths of an hour"
          : "planned time in tenths of an hour"}
        , diagnosis {page.terms.diagnosisPolicy === "on-top" ? "charged on top" : "included in the job"}.{" "}
        {runsShop && (
          <Link to="/settings" className="underline">
            Rates and tax
          </Link>
        )}
      </p>
    </section>
  );
}

/** The one offer to recommend and why; while the verdict is open, another test. */
function Recommended({ page }: { page: EstimateData }) {
  const { recommended, terms } = page;
  if (!recommended) return null;
  if (recommended.advice === "test-first")
    return (
      <p className="border-l-4 border-feed pl-3">
        <b>Recommended: test first.</b> The verdict is not certain yet, and this list would cure the fault in{" "}
        {percent(recommended.p)} of such cases. <Link to={`/jobs/${page.id}/probe`}>Go on testing</Link>
      </p>
    );
  const saved = priceText(recommended.savesMinor, terms.currency);
  const reasons = {
    "only-one": "nothing else has to be done with it.",
    cheapest: `it costs least, and ${saved} less than the next with comebacks counted.`,
    "cheapest-with-comebacks": `it costs more today, but ${saved} less than the next once comebacks are counted.`,
  } as const;
  return (
    <p className="border-l-4 border-feed pl-3">
      <b>Recommended: {offerTitles[recommended.kind]}</b>, because {reasons[recommended.reason]}
    </p>
  );
}

function Difference({ page }: { page: EstimateData }) {
  const { currency } = page.terms;
  const rows = page.difference ?? [];
  const sum = rows.reduce((total, { differenceMinor }) => total + differenceMinor, 0);
  return (
    <section aria-labelledby="difference" className="sheet-card max-w-3xl p-3 text-base">
      <h2 id="difference" className="font-bold">
        Bill against approved estimate, before tax: {sum > 0 ? "+" : ""}
        {priceText(sum, currency)}
      </h2>
      {rows.length === 0 ? (
        <p>No line differs.</p>
      ) : (
        <table className="mt-1 w-full">
          <thead>
            <tr className="text-left text-soft">
              <th className="font-normal">line</th>
              <th className="text-right font-normal">approved</th>
              <th className="text-right font-normal">billed</th>
              <th className="text-right font-normal">difference</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.title} className="border-t border-rule">
                <td>{row.title}</td>
                <td className="figures text-right">
                  {row.estimatedMinor === null ? "–" : priceText(row.estimatedMinor, currency)}
                </td>
                <td className="figures text-right">
                  {row.billedMinor === null ? "–" : priceText(row.billedMinor, currency)}
                </td>
                <td className="figures text-right">
                  {row.differenceMinor > 0 ? "+" : ""}
                  {priceText(row.differenceMinor, currency)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

interface OfferCardProps {
  readonly offer: EstimateData["offers"][number];
  readonly currency: EstimateData["terms"]["currency"];
  readonly isRecommended: boolean;
  readonly fetcher: FetcherWithComponents<unknown>;
  readonly page: EstimateData;
}

/** One way to do the repair, with its price and its odds. */
function OfferCard({ offer, currency, isRecommended, fetcher, page }: OfferCardProps) {
  return (
    <li data-offer={offer.kind} className="sheet-card grid content-start gap-1 p-3 text-base">
      <p className="font-semibold">
        {offerTitles[offer.kind]}
        {isRecommended && " (recommended)"}
      </p>
      <p className="text-soft">{offer.names}</p>
      <p className="figures text-xl">{priceText(offer.priced.totalMinor, currency)}</p>
      <p className="text-soft">
        {offer.labourHours === null ? "no labour" : `${offer.labourHours / 1000} h labour`},{" "}
        {priceText(offer.priced.taxMinor, currency)} tax included
      </p>
      <p>
        {offer.kind === "owners-own"
          ? "No warranty on the work."
          : `Comeback risk ${percent(offer.comebackChance)}, costing ${priceText(offer.comebackMinor, currency)} on average.`}
      </p>
      {offer.kind !== "owners-own" && (
        <p>
          Total including comeback risk <b className="figures">{priceText(offer.expectedMinor, currency)}</b>
        </p>
      )}
      <fetcher.Form method="post" className="mt-1">
        <input type="hidden" name="token" value={page.token} />
        <input type="hidden" name="offer" value={offer.kind} />
        <button
          type="submit"
          name="intent"
          value="offer"
          className={`btn w-full text-base ${isRecommended ? "btn-main" : ""}`}
          disabled={fetcher.state !== "idle"}
        >
          Estimate this
        </button>
      </fetcher.Form>
    </li>
  );
}
