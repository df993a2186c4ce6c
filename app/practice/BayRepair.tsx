import type { Dispatch, SetStateAction } from "react";
import { useState } from "react";
import { Form } from "react-router";
import type { BayData } from "./bayView.server";

/** Buying: which parts, and the trainee's odds before the result is known. */
export function BayRepair({ bay, busy }: { bay: BayData; busy: boolean }) {
  const [parts, setParts] = useState<readonly string[]>([]);
  const [odds, setOdds] = useState("");
  const chosen = bay.parts.filter(({ id }) => parts.includes(id));
  return (
    <section aria-labelledby="fit" className="sheet-card grid gap-2 p-3">
      <h2 id="fit" className="font-semibold">
        Replace
      </h2>
      <Form
        method="post"
        className="grid gap-2"
        onSubmit={() => {
          setParts([]);
          setOdds("");
        }}
      >
        <input type="hidden" name="token" value={bay.token} />
        <PartChoice setParts={setParts} parts={parts} bay={bay} />
        {chosen.map(({ id, words, price, minutes }) => (
          <p key={id} className="flex items-center justify-between gap-2 text-base">
            <input type="hidden" name="parts" value={id} />
            <span>
              {words}: {price}, {minutes}
            </span>
            <button
              type="button"
              className="min-h-11 underline"
              onClick={() => setParts(parts.filter((own) => own !== id))}
            >
              remove from the list
            </button>
          </p>
        ))}
        <label className="flex items-center gap-2 text-base text-soft">
          How sure are you that this is the whole repair?
          <input
            name="odds"
            className="field figures w-20 text-right text-ink"
            inputMode="numeric"
            autoComplete="off"
            value={odds}
            onChange={({ target }) => setOdds(target.value)}
          />
          %
        </label>
        <FitNow busy={busy} parts={parts} odds={odds} bay={bay} />
        {bay.fitted.length > 0 && (
          <p className="text-base text-soft">Replaced so far: {bay.fitted.join(", ")}.</p>
        )}
      </Form>
    </section>
  );
}

interface PartChoiceProps {
  readonly setParts: Dispatch<SetStateAction<readonly string[]>>;
  readonly parts: readonly string[];
  readonly bay: BayData;
}

/** Another part to fit. */
function PartChoice({ setParts, parts, bay }: PartChoiceProps) {
  return (
    <label className="grid gap-0.5 text-base text-soft">
      Part to replace
      <select
        className="field w-full text-ink"
        value=""
        onChange={({ target: { value } }) => value && setParts([...new Set([...parts, value])])}
      >
        <option value="">{parts.length > 0 ? "and also…" : "choose a part, plug or wire…"}</option>
        {bay.parts.map(({ id, words, price, minutes }) => (
          <option key={id} value={id}>
            {words}: {price}, {minutes}
          </option>
        ))}
      </select>
    </label>
  );
}

interface FitNowProps {
  readonly busy: boolean;
  readonly parts: readonly string[];
  readonly odds: string;
  readonly bay: BayData;
}

/** Fits what was chosen. */
function FitNow({ busy, parts, odds, bay }: FitNowProps) {
  return (
    <div className="flex flex-wrap gap-2">
      <button
        type="submit"
        name="intent"
        value="fit"
        className="btn"
        disabled={busy || parts.length === 0 || odds.trim() === ""}
      >
        Buy and fit
      </button>
      <button
        type="submit"
        name="intent"
        value="drive"
        className="btn btn-main"
        disabled={busy || bay.fitted.length === 0}
      >
        Hand over to customer
      </button>
    </div>
  );
}
