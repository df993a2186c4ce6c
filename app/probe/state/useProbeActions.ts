import { useMemo } from "react";
import { useEntries } from "../../entries/useEntries";
import { orderSheet } from "../../sheet/SheetTools";
import type { ShownSetup } from "../../sheet/shownSetup";
import { keyOf } from "../NextTest";
import type { Offered } from "./useOffered";

interface Wanted extends Pick<Offered, "offered" | "by" | "show"> {
  readonly settings: readonly string[];
  readonly setup: ShownSetup;
  readonly setSetup: (setup: ShownSetup) => void;
  readonly onHelp: () => void;
  readonly onFlip: () => void;
  readonly onBoard: () => void;
}

/** What the page's keys do. */
export function useProbeActions(wanted: Wanted) {
  const { offered, by, show, settings, setup, setSetup, onHelp, onFlip, onBoard } = wanted;
  const { enter, undo } = useEntries();
  return useMemo(
    () => ({
      choose: (key: string): boolean => {
        const index =
          offered?.choices?.findIndex((choice, i) => keyOf(offered.test, choice, i) === key) ?? -1;
        const choice = offered?.choices?.[index];
        if (!offered || choice === undefined) return false;
        enter({ intent: "reading", form: "next", look: offered.look, seen: choice });
        return true;
      },
      digit:
        offered?.choices === null
          ? (digit: string) => void window.dispatchEvent(new CustomEvent("airway:digit", { detail: digit }))
          : null,
      next: () => show(by + 1),
      undo,
      speed: (step: 1 | -1) => {
        const at = settings.indexOf(setup.setting) + step;
        const moved = settings[Math.min(settings.length - 1, Math.max(0, at))];
        if (moved !== undefined) setSetup({ ...setup, setting: moved });
      },
      help: onHelp,
      flip: onFlip,
      board: onBoard,
      sheet: orderSheet,
    }),
    [offered, by, setup, setSetup, settings, enter, undo],
  );
}
