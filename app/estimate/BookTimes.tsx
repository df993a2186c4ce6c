import { useFetcher } from "react-router";
import { Fold } from "../ui/Fold";
import type { EstimateData } from "./estimateView.server";

/** Book times of a model. They are entered once and used on every job on that model. */
export function BookTimes({ page }: { page: EstimateData }) {
  if (page.bookTimes.length === 0) return null;
  const used = page.terms.labourBy === "book";
  return (
    <section className="sheet-card max-w-4xl px-3 py-1 text-base">
      <Fold title={`Book times of the ${page.model}${used ? "" : " (this shop charges planned time)"}`}>
        <p className="text-soft">
          Hours as the maker or a labour guide gives them. Without one, the access plan's route by the book
          counts. Access that several works share is charged once.
        </p>
        {page.bookTimes.map((time) => (
          <BookTimeForm key={time.part} time={time} />
        ))}
      </Fold>
    </section>
  );
}

function BookTimeForm({ time }: { time: EstimateData["bookTimes"][number] }) {
  const fetcher = useFetcher<{ problem: string | null }>();
  return (
    <fetcher.Form method="post" className="grid items-end gap-2 py-1 sm:grid-cols-[1fr_6rem_1fr_auto]">
      <input type="hidden" name="part" value={time.part} />
      <span className="self-center font-semibold">{time.name}</span>
      <label className="grid gap-0.5 text-soft">
        Hours
        <input
          name="hours"
          inputMode="decimal"
          maxLength={10}
          defaultValue={time.minutes === null ? "" : String(Math.round((time.minutes / 60) * 100) / 100)}
          className="field figures w-full text-ink"
        />
      </label>
      <label className="grid gap-0.5 text-soft">
        Where it is from
        <input name="source" maxLength={80} defaultValue={time.source} className="field w-full text-ink" />
      </label>
      <button
        type="submit"
        name="intent"
        value="book-time"
        className="btn"
        aria-label={`Save the book time of ${time.name}`}
        disabled={fetcher.state !== "idle"}
      >
        Save
      </button>
      {fetcher.data?.problem && (
        <p role="alert" className="text-danger sm:col-span-4">
          Not saved: {fetcher.data.problem}
        </p>
      )}
    </fetcher.Form>
  );
}
