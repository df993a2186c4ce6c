import type { SortCount } from "@core/access/sortCount";
import { useState } from "react";
import type { WaitView } from "./repairView.server";
import { useTicks } from "./useTicks";

interface TickButtonProps {
  readonly step: string;
  readonly way: "in" | "back";
  readonly counts: readonly SortCount[];
  /** Steps that come before it and are not ticked yet. */
  readonly waits: readonly WaitView[];
  readonly main?: boolean;
  readonly children: React.ReactNode;
}

/**
 * Ticks a step with its screws. The tick counts once it is stored, and waits while the server is away. A step that
 * another comes before is ticked only with a reason.
 */
export function TickButton({ step, way, counts, waits, main = false, children }: TickButtonProps) {
  const { tick, isWaiting } = useTicks();
  const [asking, setAsking] = useState(false);
  const busy = isWaiting({ step, way });
  const open = waits.filter((own) => !isWaiting({ step: own.id, way: own.way }));
  if (open.length > 0 && asking && !busy)
    return (
      <form
        className="grid w-72 max-w-full gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          const reason = new FormData(event.currentTarget).get("reason");
          tick({ step, way, counts, reason: typeof reason === "string" ? reason : "" });
        }}
      >
        <label className="grid gap-1 text-base text-soft">
          First: {open.map(({ title }) => title).join("; ")}. Why can that wait?
          {/* biome-ignore lint/a11y/noAutofocus: it opens because somebody asked for it */}
          <input name="reason" required minLength={3} maxLength={200} autoFocus className="field text-ink" />
        </label>
        <span className="flex flex-wrap justify-end gap-2">
          {open.every(({ hasScrews }) => !hasScrews) && (
            <button
              type="button"
              className="btn text-base"
              onClick={() => {
                for (const own of open) tick({ step: own.id, way: own.way, counts: [] });
                tick({ step, way, counts });
              }}
            >
              {open.length === 1 ? "It is done too: tick both" : "They are done too: tick all"}
            </button>
          )}
          <button type="submit" className="btn text-base">
            Tick it with this reason
          </button>
        </span>
      </form>
    );
  return (
    <button
      type="button"
      disabled={busy}
      aria-expanded={open.length > 0 ? asking : undefined}
      className={`btn text-left text-base ${main ? "btn-main w-full" : ""}`}
      onClick={() => (open.length > 0 ? setAsking(true) : tick({ step, way, counts }))}
    >
      <span aria-hidden="true">{busy ? "…" : open.length > 0 ? "↷" : "✓"}</span>
      <span className="min-w-0">{children}</span>
    </button>
  );
}

/** Removes a tick. */
export function UntickButton({ id }: { id: string }) {
  const { untick, isWaiting } = useTicks();
  return (
    <button
      type="button"
      disabled={isWaiting({ id })}
      className="min-h-11 px-1 text-base underline"
      onClick={() => untick(id)}
    >
      undo
    </button>
  );
}

interface ScrewCountProps {
  readonly label: string;
  /** The sort, shown where a step has several. */
  readonly sort: string | null;
  readonly value: number;
  readonly onChange: (value: number) => void;
}

/** Large buttons that count the screws of one sort up and down. */
function ScrewCount({ label, sort, value, onChange }: ScrewCountProps) {
  return (
    <fieldset className="flex items-center">
      <legend className="sr-only">{label}</legend>
      {sort && <span className="pr-2 text-base text-soft">{sort}</span>}
      <button
        type="button"
        aria-label={`${label}: one fewer`}
        className="btn min-w-11 px-0"
        onClick={() => onChange(Math.max(0, value - 1))}
      >
        −
      </button>
      <output className="figures w-9 text-center" aria-label={label}>
        {value}
      </output>
      <button
        type="button"
        aria-label={`${label}: one more`}
        className="btn min-w-11 px-0"
        onClick={() => onChange(Math.min(99, value + 1))}
      >
        +
      </button>
    </fieldset>
  );
}

interface ScrewCountsProps {
  readonly label: string;
  readonly counts: readonly SortCount[];
  readonly onCount: (sort: string, count: number) => void;
}

/** Counts the screws of a step, each sort by itself. */
export const ScrewCounts = ({ label, counts, onCount }: ScrewCountsProps) =>
  counts.map(({ sort, count }) => (
    <ScrewCount
      key={sort}
      label={counts.length > 1 ? `${label}, ${sort}` : label}
      sort={counts.length > 1 ? sort : null}
      value={count}
      onChange={(value) => onCount(sort, value)}
    />
  ));
