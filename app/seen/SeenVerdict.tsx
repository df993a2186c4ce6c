import { percent } from "@core/units/wording";
import { capitalised } from "@words/seenName";
import { DoubtBar } from "../ui/DoubtBar";
import type { SeenDiagnosis } from "./seenDiagnosis";

/** A verdict's state, before what it says. */
export const stateTitles = {
  open: "Not certain yet",
  settled: "Confirmed",
  "best-guess": "Best guess",
} as const;

/** What to repair, how sure, and why. */
export function SeenVerdict({ diagnosis }: { diagnosis: SeenDiagnosis }) {
  const { state, repair, p, because, killedBy, alsoCheck } = diagnosis;
  return (
    <section aria-labelledby="seen-verdict" className="sheet-card p-3">
      <h2 id="seen-verdict" className="text-lg leading-tight font-bold">
        {stateTitles[state]}: {capitalised(repair)}{" "}
        <span className="figures whitespace-nowrap">{percent(p)}</span>
      </h2>
      <ul className="mt-1 text-base">
        {because.map((reason) => (
          <li key={reason}>{reason}</li>
        ))}
        {killedBy && <li>Root cause: the {killedBy}. Repair it too, or the new part fails the same way.</li>}
        {alsoCheck && <li>Check the {alsoCheck} before the new part goes in.</li>}
      </ul>
    </section>
  );
}

/** What could be wrong, by what needs work. */
export const SeenSuspects = ({ suspects }: Pick<SeenDiagnosis, "suspects">) => (
  <section aria-labelledby="seen-suspects">
    <h2 id="seen-suspects" className="text-base font-semibold text-soft">
      Suspects
    </h2>
    <ul className="mt-1 border-b border-rule">
      {suspects.map(({ name, p, faults }) => (
        <li key={name} className="relative border-t border-rule" data-suspect={name}>
          <details name="seen-suspect">
            <summary className="flex min-h-11 cursor-pointer list-none items-center justify-between gap-3">
              <span className="font-semibold">{capitalised(name)}</span>
              <span className="figures font-semibold whitespace-nowrap">{percent(p)}</span>
            </summary>
            <ul className="pb-2 text-base">
              {faults.map(({ fault, words, p: own }) => (
                <li key={fault}>
                  {words} <span className="figures text-soft">{percent(own)}</span>
                </li>
              ))}
            </ul>
          </details>
          <DoubtBar p={p} at="top-[2.15rem]" />
        </li>
      ))}
    </ul>
  </section>
);

const mostWirings = 5;

/** How the vehicle may be wired, with the doubt that is left. */
export function SeenWirings({ wirings }: Pick<SeenDiagnosis, "wirings">) {
  const shown = wirings.slice(0, mostWirings);
  const rest = wirings.slice(mostWirings).reduce((sum, { p }) => sum + p, 0);
  return (
    <section aria-labelledby="seen-wirings">
      <h2 id="seen-wirings" className="text-base font-semibold text-soft">
        How it may be wired
      </h2>
      <ul className="mt-1 border-b border-rule text-base">
        {shown.map(({ id, title, p }) => (
          <li
            key={id}
            className="relative flex min-h-10 items-center justify-between gap-3 border-t border-rule"
          >
            <span className="py-1">{capitalised(title)}</span>
            <span className="figures font-semibold whitespace-nowrap">{percent(p)}</span>
            <DoubtBar p={p} at="bottom-0" />
          </li>
        ))}
        {wirings.length > mostWirings && (
          <li className="flex min-h-10 items-center justify-between gap-3 border-t border-rule text-soft">
            <span>{wirings.length - mostWirings} others</span>
            <span className="figures">{percent(rest)}</span>
          </li>
        )}
      </ul>
    </section>
  );
}
