import { type RefObject, useEffect } from "react";
import { isTyping } from "../find/isTyping";

/** What keys do beside entering the result of the test on the card. */
interface OtherKeys {
  /** Shows the next of the offered tests. */
  readonly next: () => void;
  /** Deletes the last reading. */
  readonly undo: () => void;
}

/** Marks the form that takes the result of the test on the card. */
export const resultForm = { "data-result": "" } as const;

const lightKeys: Readonly<Record<string, string>> = { B: "bright", D: "dim", K: "dark" };

/**
 * Lets keys enter the result of the test on the card, except in a field or with letter keys off. A digit chooses by
 * position; B, D and K are bright, dim and dark. Pins are answered from top to bottom. Where a figure is asked for, a
 * digit begins it. Enter saves.
 * @param card holds the card
 */
export function useCardKeys(
  card: RefObject<HTMLElement | null>,
  on: boolean,
  { next, undo }: OtherKeys,
): void {
  useEffect(() => {
    if (!on) return;
    const press = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || isTyping(event)) return;
      const key = event.key.toUpperCase();
      const form = card.current?.querySelector<HTMLFormElement>("form[data-result]");
      if (key === "N") next();
      else if (key === "U") undo();
      else if (!form || !enter(form, key, event)) return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [card, on, next, undo]);
}

/** Enters a key into the form; false if it means nothing there, or if the browser is to type it. */
function enter(form: HTMLFormElement, key: string, { target }: KeyboardEvent): boolean {
  if (key === "ENTER") {
    // On a button or a link Enter is that one's own.
    if (target !== document.body) return false;
    form.requestSubmit();
    return true;
  }
  const words = [...form.querySelectorAll<HTMLButtonElement>('button[name="seen"]')];
  const choices = words.length > 0 ? words : openPin(form);
  const chosen =
    choices.find(({ value }) => value === lightKeys[key]) ??
    (/^[1-9]$/.test(key) ? choices[Number(key) - 1] : undefined);
  if (chosen) chosen.click();
  else if (/^[0-9]$/.test(key)) emptyFigure(form)?.focus();
  return chosen !== undefined;
}

/** The choices of the first pin without one; those of the last pin once all have one, so that it can be corrected. */
function openPin(form: HTMLFormElement): HTMLInputElement[] {
  const pins = [...form.querySelectorAll("fieldset")].map((pin) => [
    ...pin.querySelectorAll<HTMLInputElement>('input[type="radio"]'),
  ]);
  return pins.find((radios) => radios.every(({ checked }) => !checked)) ?? pins.at(-1) ?? [];
}

const emptyFigure = (form: HTMLFormElement): HTMLInputElement | undefined =>
  [...form.querySelectorAll<HTMLInputElement>('input[inputmode="decimal"]')].find(
    ({ value }) => value === "",
  );
