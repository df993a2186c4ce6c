import { type Typed, typedFigure } from "@core/sums/benchSums";
import type { SumField } from "@core/sums/sum";
import { inUnit, type Unit, unitNamed, units } from "@core/units/quantity";
import type { Dispatch, RefObject, SetStateAction } from "react";
import { useEffect, useId, useRef, useState } from "react";
import { steppedFigure } from "./steppedFigure";

interface SumFieldLineProps {
  readonly field: SumField;
  readonly typed: Typed;
  readonly problem: string | null;
  readonly first: boolean;
  readonly onTyped: (typed: Typed) => void;
}

/** Digits beyond which a figure came from a conversion: it is kept in full, and shown short. */
const shownDigits = 7;
const shortened = (text: string): string =>
  text.replace(/\D/g, "").length > 12 ? String(Number(Number(text).toPrecision(shownDigits))) : text;

/** One value of a sum: its title, the figure with its unit, and any error. */
export function SumFieldLine({ field, typed, problem, first, onTyped }: SumFieldLineProps) {
  const id = useId();
  // While a unit is being typed after the figure, the text is left as typed.
  const [writing, setWriting] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  // The browser gives the first field the focus before scripts run; typing replaces its content.
  useEffect(() => {
    if (document.activeElement === input.current) input.current?.select();
  }, []);
  const described = problem ? `${id}-problem` : undefined;
  if ("choices" in field) return <ChoiceField field={field} typed={typed} onTyped={onTyped} />;
  const isFigure = "quantity" in field;
  const own: readonly Unit[] = isFigure ? units[field.quantity] : [];
  const shown = writing ?? (isFigure ? shortened(typed.text) : typed.text);
  const take = (text: string): void => {
    setWriting(text);
    onTyped(isFigure ? typedFigure(field, text, typed.unit) : { text, unit: "" });
  };
  const turnTo = (to: string): void => {
    if (!isFigure) return;
    const [from, other] = [unitNamed(field.quantity, typed.unit), unitNamed(field.quantity, to)];
    if (!from || !other) return;
    setWriting(null);
    onTyped({ text: inUnit(typed.text, from, other) ?? typed.text, unit: other.id });
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-x-2">
      <label htmlFor={id} className="text-base text-soft">
        {field.title}
        {"hint" in field && field.hint && <span className="block text-base">({field.hint})</span>}
      </label>
      <FigureInput
        input={input}
        id={id}
        first={first}
        isFigure={isFigure}
        problem={problem}
        shown={shown}
        described={described}
        take={take}
        setWriting={setWriting}
      />
      {isFigure &&
        (own.length > 1 ? (
          <UnitChoice field={field} typed={typed} turnTo={turnTo} own={own} />
        ) : (
          <span className="w-20 text-base">{own[0]?.text}</span>
        ))}
      {problem && (
        <p id={`${id}-problem`} className="col-span-3 text-base text-danger">
          {problem}
        </p>
      )}
    </div>
  );
}

interface ChoiceFieldProps {
  readonly field: Extract<SumField, { choices: unknown }>;
  readonly typed: SumFieldLineProps["typed"];
  readonly onTyped: SumFieldLineProps["onTyped"];
}

/** A field with a few choices. */
function ChoiceField({ field, typed, onTyped }: ChoiceFieldProps) {
  return (
    <fieldset className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <legend className="float-left mr-3 text-base text-soft">{field.title}</legend>
      {field.choices.map((choice) => (
        <label key={choice.id} className="flex min-h-11 items-center gap-2">
          <input
            type="radio"
            name={field.id}
            className="size-5 accent-[var(--feed)]"
            checked={typed.text === choice.id}
            onChange={() => onTyped({ text: choice.id, unit: "" })}
          />
          {choice.title}
        </label>
      ))}
    </fieldset>
  );
}

interface FigureInputProps {
  readonly input: RefObject<HTMLInputElement | null>;
  readonly id: string;
  readonly first: SumFieldLineProps["first"];
  readonly isFigure: boolean;
  readonly problem: SumFieldLineProps["problem"];
  readonly shown: string;
  readonly described: string | undefined;
  readonly take: (text: string) => void;
  readonly setWriting: Dispatch<SetStateAction<string | null>>;
}

/** The figure as typed. */
function FigureInput({
  input,
  id,
  first,
  isFigure,
  problem,
  shown,
  described,
  take,
  setWriting,
}: FigureInputProps) {
  return (
    <input
      ref={input}
      id={id}
      // biome-ignore lint/a11y/noAutofocus: the first figure is what one comes here to type
      autoFocus={first}
      className={`field figures text-ink ${isFigure ? "w-28 px-2 text-right" : "col-span-2 w-44"} ${problem ? "border-danger" : ""}`}
      value={shown}
      autoComplete="off"
      spellCheck={false}
      aria-invalid={problem !== null}
      aria-describedby={described}
      onChange={({ target }) => take(target.value)}
      onFocus={({ target }) => target.select()}
      onBlur={() => setWriting(null)}
      onKeyDown={(event) => {
        if (!isFigure || (event.key !== "ArrowUp" && event.key !== "ArrowDown")) return;
        const stepped = steppedFigure(shown, event.key === "ArrowUp" ? 1 : -1);
        if (stepped === null) return;
        event.preventDefault();
        take(stepped);
      }}
    />
  );
}

interface UnitChoiceProps {
  readonly field: SumFieldLineProps["field"];
  readonly typed: SumFieldLineProps["typed"];
  readonly turnTo: (to: string) => void;
  readonly own: readonly Unit[];
}

/** Its unit. */
function UnitChoice({ field, typed, turnTo, own }: UnitChoiceProps) {
  return (
    <select
      aria-label={`${field.title}, unit`}
      className="field w-20 px-1.5 text-base"
      value={typed.unit}
      onChange={({ target }) => turnTo(target.value)}
    >
      {own.map(({ id: name, text }) => (
        <option key={name} value={name}>
          {text}
        </option>
      ))}
    </select>
  );
}
