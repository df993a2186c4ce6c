import { minutesText, percent } from "@core/units/wording";
import { priceText } from "../text/money";
import type { RepairData } from "./repairView.server";

const adviceWords = {
  "replace-now": "replace it now",
  "prove-and-leave": "prove it good and leave it in",
} as const;

/** While you are in there: what each other part costs now against later. */
export function Besides({ fit }: { fit: RepairData }) {
  if (fit.besides.length === 0) return null;
  return (
    <section aria-labelledby="besides" className="sheet-card p-3 text-base">
      <h2 id="besides" className="font-bold">
        While you are in there
      </h2>
      <ul className="mt-1 grid gap-2">
        {fit.besides.map((other) => (
          <li key={other.part}>
            <b>{other.name}:</b> {adviceWords[other.advice]}. {minutesText(other.extraMinutes)} more now,{" "}
            {priceText(other.nowMinor, fit.currency)} with the part; later {minutesText(other.laterMinutes)}{" "}
            of its own. It fails within {fit.warrantyMonths} months in {percent(other.failsWithin)}, which is
            expected to cost {priceText(other.laterMinor, fit.currency)}
            {other.breakEven === null ? "." : `; from ${percent(other.breakEven)} on, now is the cheaper.`}
          </li>
        ))}
      </ul>
      <p className="mt-1 text-soft">
        From what was read here and how often its kind fails; prove it while it is open.
      </p>
    </section>
  );
}
