import { useEffect } from "react";
import { isTyping } from "../../find/isTyping";
import type { SheetOrder } from "../../sheet/SheetTools";

/** What the probe page's keys do. */
export interface ProbeKeys {
  readonly choose: (key: string) => boolean;
  readonly digit: ((digit: string) => void) | null;
  readonly next: () => void;
  readonly undo: () => void;
  readonly speed: (by: 1 | -1) => void;
  readonly help: () => void;
  /** Changes the light's clip to the other post, if a point is under the probe. */
  readonly flip: () => void;
  readonly board: () => void;
  readonly sheet: (order: SheetOrder) => void;
}

/** The page's single-letter keys, unless something is being typed or they are switched off. */
export function useProbeKeys(on: boolean, keys: ProbeKeys): void {
  useEffect(() => {
    if (!on) return;
    const press = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || isTyping(event)) return;
      if (act(event.key, keys)) event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [on, keys]);
}

function act(key: string, keys: ProbeKeys): boolean {
  const letter = key.toUpperCase();
  if (keys.digit && /^[0-9]$/.test(key)) {
    keys.digit(key);
    return true;
  }
  if (keys.choose(letter)) return true;
  const actions: Readonly<Record<string, () => void>> = {
    N: keys.next,
    U: keys.undo,
    F: keys.flip,
    P: keys.board,
    "[": () => keys.speed(-1),
    "]": () => keys.speed(1),
    "+": () => keys.sheet("in"),
    "-": () => keys.sheet("out"),
    A: () => keys.sheet("all"),
    C: () => keys.sheet("closer"),
    "?": keys.help,
  };
  const action = actions[letter];
  action?.();
  return action !== undefined;
}
