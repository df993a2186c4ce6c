import { Form, useNavigation } from "react-router";
import type { OldPartAsked, RoundView } from "./rounds.server";

/** A round whose final check failed: what was done stays true. */
export const EarlierRound = ({
  round: { number, lines, oldParts },
  open,
}: {
  round: RoundView;
  open: boolean;
}) => (
  <section aria-labelledby={`round-${number}`} className="sheet-card p-4">
    <h3 id={`round-${number}`} className="font-bold">
      Round {number}: done, and the final check failed
    </h3>
    <ul className="list-disc pl-5">
      {lines.map((line) => (
        <li key={line.id}>{line.words}</li>
      ))}
    </ul>
    {open && oldParts.map((old) => <OldPart key={old.part} old={old} round={number} />)}
  </section>
);

const oldPartAnswers = [
  ["bad", "It was bad"],
  ["good", "It was good"],
  ["", "Not known"],
] as const;

/** What the part that came out turned out to be, which the readings do not tell. */
function OldPart({ old: { part, name, state }, round }: { old: OldPartAsked; round: number }) {
  const busy = useNavigation().state !== "idle";
  return (
    <Form method="post" className="mt-2 flex flex-wrap items-center gap-2" data-old-part={part}>
      <input type="hidden" name="intent" value="old-part" />
      <input type="hidden" name="part" value={part} />
      <input type="hidden" name="round" value={round} />
      <span className="basis-full">
        Was the old {name} bad? No reading proves it. Inspect it, or measure it on the bench.
      </span>
      {oldPartAnswers.map(([value, title]) => (
        <button
          key={value}
          type="submit"
          name="state"
          value={value}
          className="btn px-3 aria-pressed:border-ink aria-pressed:bg-mark aria-pressed:font-bold"
          disabled={busy}
          aria-pressed={(state ?? "") === value}
          aria-label={`${title}: ${name}`}
        >
          {title}
        </button>
      ))}
    </Form>
  );
}
