import type { Strategy } from "@core/diagnose/tests/strategy";
import { minutesText, percent } from "@core/units/wording";
import { EntryForm } from "../entries/useEntries";
import type { LookaheadPlan } from "./lookaheadView.server";
import { useAnswer } from "./state/useAnswer";

type LookAhead = NonNullable<LookaheadPlan["first"]>;

const schoolWords: Readonly<Record<Strategy, string>> = {
  "least-time": "least time expected",
  "supply-first": "fuses and relays first",
  "motor-first": "motor first",
  "resistor-first": "resistor first",
};

interface PlanAheadProps {
  readonly jobId: number;
  readonly school: Strategy;
  /** Changes with every reading, so that the steps are worked out again. */
  readonly token: string;
}

/** The tests that follow each outcome, and the expected minutes and visits of each strategy. */
export function Lookahead({ jobId, school: strategy, token }: PlanAheadProps) {
  const { answer, current } = useAnswer<LookaheadPlan>(`/jobs/${jobId}/plan?now=${token}-${strategy}`);
  if (!answer || !current) return <p className="py-2 text-base text-soft">Working out the tests to come…</p>;
  const { first, schools } = answer;
  return (
    <div className="grid gap-2 pb-2 text-base">
      {first ? <Branch look={first} /> : <p className="text-soft">No further test is needed.</p>}
      <EntryForm className="grid gap-1">
        <input type="hidden" name="intent" value="school" />
        <p className="font-semibold">Strategy, and what it takes on average to a proved verdict</p>
        {schools.map(({ school: own, minutes, visits }) => (
          <button
            key={own}
            type="submit"
            name="school"
            value={own}
            aria-pressed={own === strategy}
            className="flex min-h-11 items-center justify-between gap-3 border-t border-rule px-1 text-left aria-pressed:bg-[var(--mark)] aria-pressed:font-bold"
          >
            {schoolWords[own]}
            <span className="figures shrink-0">
              {minutes > 0 ? `${minutesText(minutes)}, ${visitsText(visits)}` : "none"}
            </span>
          </button>
        ))}
      </EntryForm>
    </div>
  );
}

/** Visits to other places than the present one, to one decimal: `1.5 visits`. */
function visitsText(visits: number): string {
  const tenths = Math.round(visits * 10) / 10;
  if (tenths === 0) return "from here";
  return `${tenths} visit${tenths === 1 ? "" : "s"}`;
}

function Branch({ look: test }: { look: LookAhead }) {
  return (
    <div>
      <p>
        {test.words} <span className="text-soft">{minutesText(test.minutes)}</span>
      </p>
      <ul className="ml-2 border-l border-[var(--edge)] pl-3">
        {test.outcomes.map(({ seen, p, repair, repairP, next }) => (
          <li key={seen} className="pt-0.5">
            <b>{seen}</b> <span className="figures text-soft">{percent(p)}</span> → {repair}{" "}
            <span className="figures">{percent(repairP)}</span>
            {next && <Branch look={next} />}
          </li>
        ))}
      </ul>
    </div>
  );
}
