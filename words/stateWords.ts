import type { BoardGroup } from "@core/records/boardGroup";

/** The complaint page's words for what a speed does. */
export const airflowWords = {
  none: "nothing",
  weak: "weak",
  normal: "normal",
  strong: "too strong",
} as const;

export const stageWords = {
  probing: "probing",
  "part-awaited": "part awaited",
  "proof-due": "check due",
  closed: "closed",
} as const;

/** The groups of the board. */
export const boardGroupWords = {
  "to-test": "To test",
  "part-awaited": "Waiting for a part",
  "to-repair": "To repair",
  "to-check": "To check",
  done: "Done today",
} as const satisfies Readonly<Record<BoardGroup, string>>;

/** A verdict's state, on a card. */
export const verdictWords = {
  open: "not certain yet",
  settled: "confirmed",
  "best-guess": "best guess",
} as const;
