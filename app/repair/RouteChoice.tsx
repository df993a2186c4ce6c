import type { Preference } from "@core/access/route";
import { minutesText } from "@core/units/wording";
import { useFetcher } from "react-router";
import type { RepairData } from "./repairView.server";

export const preferenceWords: Readonly<Record<Preference, string>> = {
  quickest: "Quickest route",
  book: "By the book",
  kind: "Easiest for the next person",
};

const hours = (minutes: number): string =>
  minutes < 90 ? minutesText(minutes) : `${Math.floor(minutes / 60)} h ${Math.round(minutes % 60)} min`;

/** What to remove, and the routes to it side by side: minutes, their range, the next person's cost. */
export function RouteChoice({ fit }: { fit: RepairData }) {
  const fetcher = useFetcher();
  const choose = (prefer: Preference, targets: readonly string[]): void =>
    void fetcher.submit({ intent: "choose", prefer, targets: targets.join(" ") }, { method: "post" });
  const busy = fetcher.state !== "idle";
  const distinct = fit.ways.filter((way) => !("same" in way) || way.same === way.prefer);
  return (
    <section aria-label="Parts to remove, and how" className="grid gap-2">
      <PartsOut fit={fit} busy={busy} choose={choose} />
      {fit.listedSince.length > 0 && (
        <p
          role="status"
          className="flex flex-wrap items-center gap-2 border-l-4 border-danger pl-3 text-base"
        >
          The work list also names {fit.listedSince.map(({ name }) => name).join(", ")}, which these steps
          leave in.
          <button
            type="button"
            className="btn px-3"
            disabled={busy}
            onClick={() => choose(fit.prefer, [...fit.targets, ...fit.listedSince.map(({ id }) => id)])}
          >
            Remove it too
          </button>
        </p>
      )}
      {fit.likeliestOnly && (
        <p className="text-base">
          The verdict is not certain yet; this is only the most likely part. More testing may be cheaper than
          taking things apart.
        </p>
      )}
      {fit.targets.length > 0 && (
        <div className="grid gap-2 sm:grid-flow-col sm:auto-cols-fr">
          {distinct.map((way) => {
            const same = fit.ways.flatMap((own) =>
              own.prefer === way.prefer || ("same" in own && own.same === way.prefer) ? [own.prefer] : [],
            );
            // A route that breaks a fixing is not called easy on the next person, even if every route does.
            const breaks = "breaks" in way && way.breaks.length > 0;
            const easy = same.filter((own) => own !== "kind" || !breaks);
            const names = easy.length > 0 ? easy : same;
            const on = same.includes(fit.prefer);
            return (
              <RouteCard
                key={way.prefer}
                way={way}
                busy={busy}
                on={on}
                choose={choose}
                fit={fit}
                names={names}
              />
            );
          })}
        </div>
      )}
    </section>
  );
}

interface PartsOutProps {
  readonly fit: RepairData;
  readonly busy: boolean;
  readonly choose: (prefer: Preference, targets: readonly string[]) => void;
}

/** What has to be removed. */
function PartsOut({ fit, busy, choose }: PartsOutProps) {
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span className="font-bold">Remove</span>
      {fit.reachable.map(({ id, name }) => {
        const on = fit.targets.includes(id);
        return (
          <button
            key={id}
            type="button"
            disabled={busy}
            aria-pressed={on}
            className="btn px-3 text-base aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
            onClick={() =>
              choose(fit.prefer, on ? fit.targets.filter((own) => own !== id) : [...fit.targets, id])
            }
          >
            {name}
          </button>
        );
      })}
    </div>
  );
}

interface RouteCardProps {
  readonly way: RepairData["ways"][number];
  readonly busy: boolean;
  readonly on: boolean;
  readonly choose: (prefer: Preference, targets: readonly string[]) => void;
  readonly fit: RepairData;
  readonly names: readonly Preference[];
}

/** One route to it, with its minutes. */
function RouteCard({ way, busy, on, choose, fit, names }: RouteCardProps) {
  return (
    <button
      type="button"
      disabled={busy || "problem" in way}
      aria-pressed={on}
      className={`sheet-card grid content-start px-3 py-2 text-left ${on ? "outline-2 outline-feed" : ""}`}
      onClick={() => choose(way.prefer, fit.targets)}
    >
      <span className="text-base font-semibold">
        {names.length > 1
          ? names
              .map((own, i) => (i === 0 ? preferenceWords[own] : preferenceWords[own].toLowerCase()))
              .join("; ")
          : preferenceWords[way.prefer]}
      </span>
      {"problem" in way ? (
        <span className="text-base text-soft">{way.problem}</span>
      ) : (
        <span className="text-base text-soft">
          <span className="figures text-xl text-ink">{hours(way.minutes)}</span> for removal, usually{" "}
          {hours(way.expected.low)} to {hours(way.expected.high)} with risks
          {way.nextPersonMinutes > 0
            ? `; extra work for the next person ${minutesText(way.nextPersonMinutes)}`
            : way.breaks.length === 0 && "; no extra work for the next person"}
          {way.breaks.length > 0 && (
            <b className="block text-danger">Breaks or cuts: {way.breaks.join("; ")}</b>
          )}
        </span>
      )}
    </button>
  );
}
