import { minutesText } from "@core/units/wording";
import { useState } from "react";
import type { FetcherWithComponents } from "react-router";
import { useFetcher } from "react-router";
import type { PartsData } from "./partsView.server";

const words = { harmless: "harmless", adaptable: "can be adapted", wrong: "wrong part" } as const;
type Difference = NonNullable<PartsData["match"]>["differences"][number];

interface DifferenceTableProps {
  readonly part: string;
  readonly match: PartsData;
  readonly problem: string | null;
}

/** Each difference with its judgement and reason; a person may override it with words that are stored. */
export function DifferenceTable({ part, match, problem }: DifferenceTableProps) {
  const differences = match.match?.differences ?? [];
  if (differences.length === 0) return null;
  return (
    <ul className="mt-2 border-b border-rule">
      {differences.map((own) => (
        <DifferenceLine key={own.feature} part={part} own={own} match={match} />
      ))}
      {problem && (
        <li role="alert" className="border-t border-rule py-2 text-danger">
          {problem}.
        </li>
      )}
    </ul>
  );
}

function DifferenceLine({ part, own, match }: { part: string; own: Difference; match: PartsData }) {
  const fetcher = useFetcher();
  const [open, setOpen] = useState(false);
  const override = match.overrides.find(({ feature }) => feature === own.feature);
  return (
    <li data-feature={own.feature} className="grid gap-x-3 border-t border-rule py-2 sm:grid-cols-[8rem_1fr]">
      <p className="font-semibold">
        {own.feature}
        <span className="block text-base font-normal">
          {own.overridden ? (
            <s className="text-soft">{words[own.judgement]}</s>
          ) : (
            <Judged judgement={own.judgement} />
          )}
        </span>
      </p>
      <div className="min-w-0 text-base">
        <p className="figures">
          {own.old || "–"} → {own.fresh}
        </p>
        <p>{own.because}.</p>
        {own.work && (
          <p>
            <b>Work:</b> {own.work.title}, {minutesText(own.work.minutes)}.
          </p>
        )}
        {override ? (
          <fetcher.Form method="post" className="flex flex-wrap items-center gap-2">
            <input type="hidden" name="part" value={part} />
            <input type="hidden" name="feature" value={own.feature} />
            <span className="border-l-4 border-feed pl-2">
              Difference accepted: “{override.words}” <span className="text-soft">{override.when}</span>
            </span>
            <button type="submit" name="intent" value="judge-again" className="min-h-11 px-1 underline">
              undo
            </button>
          </fetcher.Form>
        ) : (
          own.judgement !== "harmless" && (
            <>
              <button
                type="button"
                aria-expanded={open}
                className="min-h-11 text-soft underline"
                onClick={() => setOpen(!open)}
              >
                Accept this difference
              </button>
              {open && <OverrideForm fetcher={fetcher} part={part} own={own} />}
            </>
          )
        )}
      </div>
    </li>
  );
}

function Judged({ judgement }: { judgement: Difference["judgement"] }) {
  if (judgement === "wrong") return <span className="font-semibold text-danger">✕ {words.wrong}</span>;
  return judgement === "adaptable" ? (
    <span className="font-semibold text-feed">△ {words.adaptable}</span>
  ) : (
    <span className="text-good">✓ {words.harmless}</span>
  );
}

interface OverrideFormProps {
  readonly fetcher: FetcherWithComponents<unknown>;
  readonly part: string;
  readonly own: Difference;
}

/** Why the difference is accepted. */
function OverrideForm({ fetcher, part, own }: OverrideFormProps) {
  return (
    <fetcher.Form method="post" className="flex flex-wrap items-end gap-2">
      <input type="hidden" name="part" value={part} />
      <input type="hidden" name="feature" value={own.feature} />
      <label className="grid grow gap-1 text-soft">
        Why? This is saved with the job
        <input name="words" required minLength={3} maxLength={300} className="field w-full text-ink" />
      </label>
      <button type="submit" name="intent" value="override" className="btn">
        Accept
      </button>
    </fetcher.Form>
  );
}
