import { observationOf } from "@core/predict/observations/index";
import { minutesText, percent } from "@core/units/wording";
import { wordingOf } from "@words/tests/index";
import type { Dispatch, RefObject, SetStateAction } from "react";
import { useEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { useQueue } from "../entries/browserQueue";
import { EntryForm, EntryProblem } from "../entries/useEntries";
import { KeyHint } from "../ui/KeyHint";
import { Cautions } from "./Cautions";
import { NowChoice, NowField, NowStart } from "./NowState";
import type { OfferedTest } from "./offeredTest";
import { VisitList } from "./VisitList";

/** Letter keys of a test light's outcomes. */
const lightKeys: Readonly<Record<string, string>> = { bright: "B", dim: "D", dark: "K" };

/** The key for a choice: B, D and K for a light, its position in the list otherwise. */
export const keyOf = (test: string, choice: string, index: number): string | null =>
  test === "light" ? (lightKeys[choice] ?? null) : index < 6 ? String(index + 1) : null;

interface NextLookProps {
  readonly offered: OfferedTest;
  /** All suggested tests, those of the next visit first. */
  readonly tests: readonly OfferedTest[];
  /** True to show the whole visit, false for one test at a time. */
  readonly planned: boolean;
  readonly token: string;
  readonly lettersOn: boolean;
  readonly onNext: () => void;
  /** Puts a test on the card, by its position in the list. */
  readonly onShow: (at: number) => void;
  readonly position: string;
  /** True while something tapped on the sheet covers it on a phone. */
  readonly hidden: boolean;
}

/** The test Airway suggests now: where to touch, what each result would leave, one tap to enter it. */
export function NextTest(props: NextLookProps) {
  const { offered, tests, planned, token, lettersOn, onNext, onShow, position, hidden } = props;
  const visit = planned && offered.visit ? tests.filter((own) => own.visit) : [];
  const { words, outcomes } = offered;
  const { stored } = useQueue();
  const outcomeOf = new Map(outcomes.map((outcome) => [outcome.seen, outcome]));
  return (
    <section
      aria-labelledby="next-look"
      id="next-test"
      tabIndex={-1}
      className={`tag-card shrink-0 tall-phone:fixed tall-phone:inset-x-0 tall-phone:bottom-[var(--rail)] tall-phone:z-20 tall-phone:max-h-[47vh] tall-phone:overflow-y-auto ${hidden ? "tall-phone:hidden" : ""}`}
    >
      <div className="tag-face">
        <p className="flex justify-between gap-2 pr-8 text-base text-soft">
          <span>
            {visit.length > 1
              ? `Next visit: ${offered.visit?.place ?? ""}, ${visit.length} tests`
              : `Next test${position}`}
          </span>
          <span className="shrink-0">
            {minutesText(visit.length > 1 ? (offered.visit?.minutes ?? offered.minutes) : offered.minutes)}
          </span>
        </p>
        <h2 id="next-look" className="mt-1 text-xl leading-tight font-bold" aria-live="polite">
          {words.before}{" "}
          {words.points.map((point, i) => (
            <span key={point.name}>
              {i > 0 && ` ${words.between} `}
              {point.name}
              {point.id && (
                <>
                  {" "}
                  <code className="figures rounded bg-[var(--mark)] px-1">{point.id}</code>
                </>
              )}
            </span>
          ))}
          {words.after && ` ${words.after}`}
        </h2>
        <p className="mt-1 text-base text-soft">{words.how}</p>
        {offered.needsPower && (
          <p className="mt-1 text-base">
            This test needs power: put the fuse or plug back, hands clear of the wheel, and pull it again
            afterwards.
          </p>
        )}
        <Cautions cautions={offered.cautions} token={token} />
        {/* A question to the customer may be on the card while another test is entered below. */}
        {(observationOf(offered.test).form.setup !== "none" || offered.test === "history") && <NowChoice />}
        {/* Above the ranges, because on a phone those fill the card. */}
        <EntryProblem of={({ form }) => form === "next"} />
        <OutcomeButtons
          // Starts afresh for another test, or once an entry is stored. It must not do so whenever the page reloads,
          // or somebody else's reading would wipe what is being typed here.
          key={`${offered.look} ${stored}`}
          token={token}
          offered={offered}
          outcomeOf={outcomeOf}
          lettersOn={lettersOn}
        />
        <div className="mt-2 flex flex-wrap items-start justify-between gap-x-3 text-base">
          <details>
            <summary className="min-h-11 cursor-pointer py-2 underline">Why this test?</summary>
            <p className="text-soft">{offered.why}</p>
          </details>
          <button
            type="button"
            aria-keyshortcuts={lettersOn ? "N" : undefined}
            className="min-h-11 shrink-0 px-2 underline"
            onClick={onNext}
          >
            {lettersOn && <KeyHint>N</KeyHint>} another test{" "}
          </button>
          <NowStart />
        </div>
        <VisitList token={token} visit={visit} shown={offered} onShow={onShow} planned={planned} />
        <Storing />
      </div>
    </section>
  );
}

/** Announced to people who cannot see the page change: an entry is on its way. */
function Storing() {
  const { waiting } = useQueue();
  return (
    <p role="status" className="sr-only">
      {waiting.length === 0 ? "" : "storing"}
    </p>
  );
}

function NumberEntry({ offered }: { offered: OfferedTest }) {
  const input = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState("");
  useEffect(() => {
    // A digit typed anywhere starts the value: the page passes its first key to the field.
    const start = (event: Event): void => {
      const { detail } = event as CustomEvent<string>;
      // Rendered at once, because the next key may come before the next ordinary render.
      flushSync(() => setTyped(detail));
      input.current?.focus();
    };
    window.addEventListener("airway:digit", start);
    return () => window.removeEventListener("airway:digit", start);
  }, []);
  return (
    <>
      <Display input={input} typed={typed} setTyped={setTyped} offered={offered} />
      {offered.unit === "Ω" && (
        <button type="submit" name="noEnd" value="yes" className="btn border-ink bg-paper">
          OL (open)
        </button>
      )}
      <ul className="mt-1 text-base">
        {offered.outcomes
          .filter(({ p }) => p >= 0.02)
          .map((outcome) => (
            <li key={outcome.seen} className="border-t border-rule">
              {outcome.pieces.length > 1 ? (
                <JoinedRange outcome={outcome} />
              ) : (
                <RangeButton outcome={outcome} />
              )}
            </li>
          ))}
      </ul>
      <p className="text-base text-soft">Type the reading, or tap its range.</p>
    </>
  );
}

type Outcome = OfferedTest["outcomes"][number];

/** A range in words, with its odds and what it leaves. */
const RangeLine = ({ outcome: { lead, words, p, leaves } }: { outcome: Outcome }) => (
  <>
    <span className="underline">
      {lead && <b>{lead}</b>} <span className="figures">{words}</span>
    </span>
    <span className="figures text-soft">{percent(p)}</span>
    <span className="grow truncate text-right text-soft">{leaves}</span>
  </>
);

/** Enters a range by its middle. */
const RangeButton = ({ outcome }: { outcome: Outcome }) => (
  <button
    type="submit"
    name={outcome.value === null ? "noEnd" : "about"}
    value={outcome.value === null ? "yes" : outcome.value}
    data-about={outcome.value ?? ""}
    aria-label={`Reads ${outcome.lead ? `${outcome.lead}, ` : ""}${outcome.words}: ${percent(outcome.p)}, ${outcome.leaves}`}
    className="flex min-h-11 w-full items-center justify-between gap-3"
  >
    <RangeLine outcome={outcome} />
  </button>
);

/** A wide range opens into the narrow ones it was joined from, so that no figure is entered that nobody saw. */
const JoinedRange = ({ outcome }: { outcome: Outcome }) => (
  <details>
    <summary className="flex min-h-11 cursor-pointer items-center justify-between gap-3">
      <RangeLine outcome={outcome} />
    </summary>
    <div className="flex flex-wrap gap-2 pb-2">
      {outcome.pieces.map(({ words, value }) => (
        <button
          key={value}
          type="submit"
          name="about"
          value={value}
          data-about={value}
          aria-label={`Reads ${words}`}
          className="btn figures min-h-11 border-ink bg-paper px-2"
        >
          {words}
        </button>
      ))}
    </div>
  </details>
);

interface OutcomeButtonsProps {
  readonly token: NextLookProps["token"];
  readonly offered: NextLookProps["offered"];
  readonly outcomeOf: Map<string, { readonly p: number; readonly leaves: string }>;
  readonly lettersOn: NextLookProps["lettersOn"];
}

/** A button for each possible result, with what it would leave. */
function OutcomeButtons({ token, offered, outcomeOf, lettersOn }: OutcomeButtonsProps) {
  return (
    <EntryForm passing className="mt-3 grid gap-1.5">
      <input type="hidden" name="intent" value="reading" />
      <input type="hidden" name="token" value={token} />
      <input type="hidden" name="form" value="next" />
      <input type="hidden" name="look" value={offered.look} />
      <NowField />
      {offered.choices ? (
        offered.choices.map((choice, index) => {
          const outcome = outcomeOf.get(choice);
          const key = keyOf(offered.test, choice, index);
          return (
            <button
              key={choice}
              type="submit"
              name="seen"
              value={choice}
              data-choice={choice}
              aria-keyshortcuts={key && lettersOn ? key : undefined}
              className="btn grid w-full grid-cols-[2rem_5rem_3.6rem_1fr] justify-start gap-1.5 border-ink bg-paper px-3 text-left"
            >
              <span>{key && lettersOn && <KeyHint>{key}</KeyHint>}</span>
              <span className="font-bold">{wordingOf(offered.test).word(choice)}</span>
              <span className="text-right text-base tabular-nums">{outcome ? percent(outcome.p) : "–"}</span>
              <span className="truncate text-right text-base text-soft">{outcome?.leaves}</span>
            </button>
          );
        })
      ) : (
        <NumberEntry offered={offered} />
      )}
    </EntryForm>
  );
}

interface DisplayProps {
  readonly input: RefObject<HTMLInputElement | null>;
  readonly typed: string;
  readonly setTyped: Dispatch<SetStateAction<string>>;
  readonly offered: OfferedTest;
}

/** The figure on the display. */
function Display({ input, typed, setTyped, offered }: DisplayProps) {
  return (
    <div className="flex items-center gap-2">
      <label htmlFor="value" className="font-bold">
        Reads
      </label>
      <input
        ref={input}
        id="value"
        name="value"
        inputMode="decimal"
        autoComplete="off"
        value={typed}
        onChange={({ target }) => setTyped(target.value)}
        className="field figures w-28 text-right"
      />
      <span>{offered.unit}</span>
      <button type="submit" className="btn btn-main grow">
        Save
      </button>
    </div>
  );
}
