import { colourNames } from "@core/circuit/wireColour";
import { lightSeen } from "@core/predict/observations/light";
import { fuseStates } from "@core/wiring/placeReading";
import type { PlaceTest } from "@core/wiring/placeTest";
import { freshLabels } from "@core/wiring/placeTest";
import { placeResultWord } from "@words/placeWords";
import { useState } from "react";
import { useLetterKeys } from "../shell/letterKeys";
import { pinField, sizeField } from "./seenForm";

/** Tests that read every pin of a plug, or every fuse. */
export const readsPins = (test: PlaceTest): boolean =>
  test.test === "wires" ||
  test.test === "ohms" ||
  (test.test === "light" && "at" in test) ||
  (test.test === "volts" && "at" in test);

const mostPins = 12;

interface PinEntryProps {
  readonly test: PlaceTest;
  /** Labels met at this plug so far. */
  readonly met: readonly string[];
  /** Pins to expect where nobody has counted them. */
  readonly expected: number;
}

/** One line for each pin or fuse: a word to tap, or a figure to type. The number of lines can be corrected. */
export function PinEntry({ test, met, expected }: PinEntryProps) {
  const [count, setCount] = useState(Math.max(met.length, expected, 1));
  const fresh = freshLabels(count);
  const labels = [...met, ...fresh.filter((label) => !met.includes(label))].slice(0, count);
  const lettersOn = useLetterKeys();
  const noun = "at" in test && test.at === "fuses" ? "fuses" : "wires";
  const from = test.test === "ohms" ? test.from : null;
  return (
    <>
      <div className="flex flex-wrap items-center gap-2 text-base">
        <span id="pin-count">
          How many {noun}: <b className="figures">{count}</b>
        </span>
        <button
          type="button"
          className="btn px-3"
          aria-label={`One of the ${noun} less`}
          disabled={count <= Math.max(1, met.length)}
          onClick={() => setCount(count - 1)}
        >
          −
        </button>
        <button
          type="button"
          className="btn px-3"
          aria-label={`One of the ${noun} more`}
          disabled={count >= mostPins}
          onClick={() => setCount(count + 1)}
        >
          +
        </button>
      </div>
      {test.test === "light" && lettersOn && (
        <p className="text-base text-soft max-md:hidden">
          Keys:{" "}
          {test.at === "fuses"
            ? "1, 2 and 3 for good, blown and dead"
            : "B, D and K for bright, dim and dark"}
          , from top to bottom; Enter saves.
        </p>
      )}
      <ul className="grid gap-1.5">
        {labels
          .filter((label) => label !== from)
          .map((label) => (
            <li key={label} className="flex flex-wrap items-center gap-1.5">
              <PinLine test={test} label={label} noun={noun} />
            </li>
          ))}
      </ul>
    </>
  );
}

interface PinLineProps {
  readonly test: PlaceTest;
  readonly label: string;
  readonly noun: string;
}

function PinLine({ test, label, noun }: PinLineProps) {
  const title = `${noun === "fuses" ? "fuse" : "pin"} ${label}`;
  if (test.test === "light") {
    const words = test.at === "fuses" ? fuseStates : lightSeen;
    return (
      <fieldset className="flex grow flex-wrap items-center gap-1.5">
        <legend className="float-left font-semibold md:w-16">{title}</legend>
        {words.map((word) => (
          <ChoiceButton key={word} name={pinField(label)} value={word} words={placeResultWord(test, word)} />
        ))}
      </fieldset>
    );
  }
  if (test.test === "wires")
    return (
      <fieldset className="flex grow flex-wrap items-center gap-1.5">
        <legend className="float-left w-16 font-semibold">{title}</legend>
        <ChoiceButton name={sizeField(label)} value="thick" words="thick" />
        <ChoiceButton name={sizeField(label)} value="thin" words="thin" />
        <select name={pinField(label)} aria-label={`Colour of ${title}`} className="field" defaultValue="">
          <option value="">colour</option>
          {Object.entries(colourNames).map(([code, words]) => (
            <option key={code} value={code}>
              {words}
            </option>
          ))}
        </select>
      </fieldset>
    );
  const unit = test.test === "ohms" ? "Ω" : "V";
  return (
    <label className="flex items-center gap-2">
      <span className="w-16 font-semibold">{title}</span>
      <input
        name={pinField(label)}
        inputMode="decimal"
        autoComplete="off"
        required
        className="field figures w-28 text-right"
      />
      {unit}
      {test.test === "ohms" && <span className="text-base text-soft">or OL</span>}
    </label>
  );
}

interface ChoiceButtonProps {
  readonly name: string;
  readonly value: string;
  readonly words: string;
}

const ChoiceButton = ({ name, value, words }: ChoiceButtonProps) => (
  <label className="btn min-w-12 cursor-pointer px-2 text-base max-md:grow has-checked:border-ink has-checked:bg-mark has-checked:font-bold has-focus-visible:outline-2">
    <input type="radio" name={name} value={value} required className="sr-only" />
    {words}
  </label>
);
