import { minutesText, percent } from "@core/units/wording";
import { priceText } from "../text/money";
import type { RepairData } from "./repairView.server";

const adviceWords = {
  "replace-now": "replace it now",
  "prove-and-leave": "test it and leave it in",
} as const;

/** Parts to replace while it is open: the cost now against later. */
export function Besides({ fit }: { fit: RepairData }) {
  if (fit.besides.length === 0) return null;
  return (
    <section aria-labelledby="besides" className="sheet-card p-3 text-base">
      <h2 id="besides" className="font-bold">
        While it is open
      </h2>
      <ul className="mt-1 grid gap-2">
        {fit.besides.map((other) => (
          <li key={other.part}>
            <b>{other.name}:</b> {adviceWords[other.advice]}. Now it takes {minutesText(other.extraMinutes)}{" "}
            more and costs {priceText(other.nowMinor, fit.currency)} with the part. Later it takes{" "}
            {minutesText(other.laterMinutes)} on its own. The chance that it fails within {fit.warrantyMonths}{" "}
            months is {percent(other.failsWithin)}, which costs {priceText(other.laterMinor, fit.currency)} on
            average
            {other.breakEven === null
              ? "."
              : `. Replacing it now is cheaper above ${percent(other.breakEven)}.`}
          </li>
        ))}
      </ul>
      <p className="mt-1 text-soft">
        From the readings on this job and how often such parts fail. Test it while it is open.
      </p>
    </section>
  );
}
