import { states } from "@core/predict/moment";
import { nowWords } from "@words/stateWords";
import { createContext, use, useMemo, useState } from "react";

/** Whether the symptom is there right now; null if nobody said. */
type Now = (typeof states)[number] | null;

interface NowShared {
  readonly now: Now;
  readonly setNow: (now: Now) => void;
  /** Whether the job's readings tell that the symptom comes and goes. */
  readonly varies: boolean;
}

const NowContext = createContext<NowShared>({ now: null, setNow: () => undefined, varies: false });

/** Keeps what was last said of the symptom for all forms of a page. */
export function NowProvider({ varies, children }: { varies: boolean; children: React.ReactNode }) {
  const [now, setNow] = useState<Now>(null);
  const shared = useMemo(() => ({ now, setNow, varies }), [now, varies]);
  return <NowContext value={shared}>{children}</NowContext>;
}

/** A hidden field that sends the choice with the reading. */
export const NowField = () => <input type="hidden" name="state" value={use(NowContext).now ?? ""} />;

/** Whether the choice is shown: the customer said that it comes and goes, or the technician found out. */
const isAsked = ({ now, varies }: NowShared): boolean => varies || now !== null;

/** Opens the choice on a job where nobody has said yet that the symptom comes and goes. */
export function NowStart() {
  const shared = use(NowContext);
  if (isAsked(shared)) return null;
  return (
    <button type="button" className="min-h-11 underline" onClick={() => shared.setNow("failing")}>
      It comes and goes
    </button>
  );
}

/** Says whether the symptom is there right now, if it comes and goes. */
export function NowChoice() {
  const shared = use(NowContext);
  const { now, setNow } = shared;
  if (!isAsked(shared)) return null;
  return (
    <fieldset className="mt-2 flex flex-wrap items-center gap-x-2 gap-y-1 text-base">
      <legend className="float-left mr-1">Right now it is</legend>
      {states.map((state) => (
        <button
          key={state}
          type="button"
          aria-pressed={now === state}
          className="btn min-h-9 px-2.5 text-base aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
          onClick={() => setNow(now === state ? null : state)}
        >
          {nowWords[state]}
        </button>
      ))}
    </fieldset>
  );
}
