import type { Caution } from "@core/diagnose/tests/caution";
import { noises } from "@core/motor/mechanicalMode";
import { observationOf } from "@core/predict/observations/index";
import { minutesText, percent } from "@core/units/wording";
import type { Place } from "@core/wiring/place";
import type { PlaceTest } from "@core/wiring/placeTest";
import { placeName, placeResultWord, placeTestHow, placeTestText } from "@words/placeWords";
import { capitalised } from "@words/seenName";
import { useState } from "react";
import { QueuedForm } from "../entries/QueuedForm";
import { KeyHint } from "../ui/KeyHint";
import { PinEntry, readsPins } from "./PinEntry";
import { SeenCautions } from "./SeenCautions";
import type { SeenNext } from "./seenDiagnosis";
import { resultForm } from "./useCardKeys";

/** A test with what the page needs besides its forecast. */
export interface OfferedPlaceTest extends SeenNext {
  readonly cautions: readonly Caution[];
  /** Where it is taken; null for one that is taken from the seat. */
  readonly place: Place | null;
  /** Labels met at its plug so far. */
  readonly met: readonly string[];
}

interface NextPlaceTestProps {
  readonly offered: OfferedPlaceTest;
  /** It is the one the diagnosis proposes first. */
  readonly isFirst: boolean;
  readonly token: string;
}

/** The test that reports a vehicle without a place: the same one, or an inspection if that cannot say so. */
const absenceOf = (test: PlaceTest, place: Place): PlaceTest =>
  test.test === "amps" || test.test === "airflow" || (test.test === "volts" && !("at" in test))
    ? { test: "look", at: place }
    : test;

/** The test to do: where, how, what it may show and who is left then, and the entry of its result. */
export function NextPlaceTest({ offered, isFirst, token }: NextPlaceTestProps) {
  const { test, minutes, outcomes, cautions, place } = offered;
  return (
    <section aria-labelledby="next-place-test" className="tag-card" id="next-place">
      <div className="tag-face">
        <p className="pr-8 text-base text-soft">
          {isFirst ? "Next test" : "Another test"}, <span className="figures">{minutesText(minutes)}</span>
        </p>
        <h2 id="next-place-test" className="pr-8 text-xl leading-tight font-bold">
          {capitalised(placeTestText(test))}
        </h2>
        <p className="mt-1 text-base">{placeTestHow(test)}</p>
        <SeenCautions key={offered.key} cautions={cautions} token={token} />
        <ResultForm offered={offered} token={token} />
        {place && (
          <div className="mt-2 flex flex-wrap gap-x-4 text-base">
            <QueuedForm words={() => `${placeName(place)}: there is none`}>
              <TestFields test={absenceOf(test, place)} token={token} />
              <button type="submit" name="absent" value="yes" className="min-h-11 underline">
                It has no {placeName(place)}
              </button>
            </QueuedForm>
            <QueuedForm words={() => `${placeName(place)}: out of reach`}>
              <input type="hidden" name="intent" value="reach" />
              <input type="hidden" name="token" value={token} />
              <input type="hidden" name="place" value={place} />
              <button type="submit" name="out" value="yes" className="min-h-11 underline">
                I cannot get at it
              </button>
            </QueuedForm>
          </div>
        )}
        {outcomes.length > 1 && (
          <details className="mt-1 text-base">
            <summary className="flex min-h-11 cursor-pointer items-center underline decoration-rule underline-offset-4">
              What it may show
            </summary>
            <ul>
              {outcomes.map(({ seen, p, leaves }) => (
                <li key={seen} className="flex gap-3 border-t border-rule py-1">
                  <span className="figures w-14 shrink-0 text-right font-semibold">{percent(p)}</span>
                  <span className="grow">{seen}</span>
                  <span className="text-right text-soft">leaves {leaves}</span>
                </li>
              ))}
            </ul>
          </details>
        )}
      </div>
    </section>
  );
}

const TestFields = ({ test, token }: { test: PlaceTest; token: string }) => (
  <>
    <input type="hidden" name="intent" value="reading" />
    <input type="hidden" name="token" value={token} />
    <input type="hidden" name="test" value={JSON.stringify(test)} />
  </>
);

/** The words a test can give. */
function wordsOf(test: PlaceTest): readonly string[] {
  if (test.test === "listen") return noises;
  if (test.test === "wires") return [];
  const observation = observationOf(test.test);
  return observation.gives === "number" ? [] : observation.outcomes;
}

const isFigure = (test: PlaceTest): boolean => ["volts", "ohms", "amps"].includes(test.test);

interface ResultFormProps {
  readonly offered: OfferedPlaceTest;
  readonly token: string;
}

/** The entry of a result: a line for each pin, one figure, or one word that is saved by its tap. */
function ResultForm({ offered: { key, test, met, pins }, token }: ResultFormProps) {
  const [follows, setFollows] = useState("");
  const words = (): string => placeTestText(test);
  if (readsPins(test) || isFigure(test))
    return (
      <QueuedForm key={key} words={words} className="mt-3 grid gap-3" {...resultForm}>
        <TestFields test={test} token={token} />
        {readsPins(test) ? (
          <PinEntry test={test} met={met} expected={pins} />
        ) : (
          <label className="flex items-center gap-2 font-semibold">
            Reads
            <input
              name="value"
              inputMode="decimal"
              autoComplete="off"
              required
              className="field figures w-28 text-right font-normal"
            />
            <span className="font-normal">{test.test === "amps" ? "A" : "V"}</span>
          </label>
        )}
        <button type="submit" className="btn btn-main justify-self-start">
          Save
        </button>
      </QueuedForm>
    );
  return (
    <QueuedForm
      key={key}
      words={({ seen = "" }) => `${placeTestText(test)}: ${placeResultWord(test, seen)}`}
      className="mt-3"
      {...resultForm}
    >
      <TestFields test={test} token={token} />
      {test.test === "listen" && (
        <fieldset className="mb-2 flex flex-wrap items-center gap-2 text-base">
          <legend className="float-left">A noise follows the speed</legend>
          {["yes", "no"].map((own) => (
            <button
              key={own}
              type="button"
              aria-pressed={follows === own}
              className="btn px-3 aria-pressed:border-ink aria-pressed:bg-mark aria-pressed:font-bold"
              onClick={() => setFollows(follows === own ? "" : own)}
            >
              {own}
            </button>
          ))}
          <input type="hidden" name="followsSpeed" value={follows} />
        </fieldset>
      )}
      <div className="flex flex-wrap gap-2">
        {wordsOf(test).map((own, at) => (
          <button
            key={own}
            type="submit"
            name="seen"
            value={own}
            className="btn min-w-24 border-ink bg-paper font-bold"
          >
            <KeyHint at="max-md:hidden">{at + 1}</KeyHint> {placeResultWord(test, own)}
          </button>
        ))}
      </div>
    </QueuedForm>
  );
}
