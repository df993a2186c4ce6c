import { wordingOf } from "@words/tests/index";
import { cardLine } from "@words/tests/testText";
import { Form, useLocation } from "react-router";
import { EntryForm } from "../entries/useEntries";
import { NowField } from "./NowState";
import type { OfferedTest } from "./offeredTest";

interface VisitListProps {
  readonly token: string;
  readonly visit: readonly OfferedTest[];
  /** The test on the card. */
  readonly shown: OfferedTest;
  readonly onShow: (at: number) => void;
  readonly planned: boolean;
}

/**
 * The tests of the visit, in order. Each is entered with one tap, or put on the card by its name. The visit is planned
 * again after every reading.
 */
export function VisitList({ token, visit, shown, onShow, planned }: VisitListProps) {
  const { pathname } = useLocation();
  if (planned && visit.length < 2) return null;
  return (
    <div className="mt-2 border-t border-rule pt-1 text-base">
      {planned && (
        <>
          <p className="font-semibold">On this visit</p>
          <ol>
            {visit.map((own, at) => (
              <li key={own.look}>
                <button
                  type="button"
                  aria-current={own.look === shown.look ? "step" : undefined}
                  className="min-h-11 w-full py-1 text-left underline aria-[current=step]:font-bold aria-[current=step]:no-underline"
                  onClick={() => onShow(at)}
                >
                  {at + 1}. {cardLine(own.words)}
                </button>
                {own.look !== shown.look && !needsCare(own, shown) && (
                  <QuickEntry token={token} offered={own} />
                )}
              </li>
            ))}
          </ol>
        </>
      )}
      <Form method="post" action="/theme">
        <input type="hidden" name="back" value={pathname} />
        <button
          className="min-h-11 text-soft underline"
          type="submit"
          name="visits"
          value={planned ? "off" : "on"}
        >
          {planned ? "Show one test at a time" : "Show whole visits"}
        </button>
      </Form>
    </div>
  );
}

/** A test that is first read on the card: it has a caution of its own, or needs a silenced blower's fuse back in. */
const needsCare = ({ cautions, needsPower }: OfferedTest, shown: OfferedTest): boolean =>
  needsPower || cautions.some((caution) => !shown.cautions.includes(caution));

/** Enters a test of the visit that is not on the card: a button for each word, or a field for the figure. */
function QuickEntry({ token, offered }: { token: string; offered: OfferedTest }) {
  const { look, test, choices, words, unit } = offered;
  const small = "btn min-h-11 border-ink bg-paper px-2 text-base";
  return (
    <EntryForm passing className="flex flex-wrap items-center gap-1.5 pb-1">
      <input type="hidden" name="intent" value="reading" />
      <input type="hidden" name="token" value={token} />
      <input type="hidden" name="form" value="next" />
      <input type="hidden" name="look" value={look} />
      <NowField />
      {choices ? (
        choices.map((choice) => (
          <button
            key={choice}
            type="submit"
            name="seen"
            value={choice}
            aria-label={`${wordingOf(test).word(choice)}: ${cardLine(words)}`}
            className={small}
          >
            {wordingOf(test).word(choice)}
          </button>
        ))
      ) : (
        <>
          <input
            name="value"
            inputMode="decimal"
            autoComplete="off"
            aria-label={`Figure: ${cardLine(words)}`}
            className="field figures w-20 text-right"
          />
          <span>{unit}</span>
          <button type="submit" aria-label={`Enter figure: ${cardLine(words)}`} className={small}>
            Enter
          </button>
          {unit === "Ω" && (
            <button
              type="submit"
              name="noEnd"
              value="yes"
              aria-label={`OL: ${cardLine(words)}`}
              className={small}
            >
              OL
            </button>
          )}
        </>
      )}
    </EntryForm>
  );
}
