import type { Pattern } from "@core/predict/moment";
import type { BoardGroup } from "@core/records/boardGroup";

/** The complaint page's words for what a speed does. */
export const airflowWords = {
  none: "nothing",
  weak: "weak",
  normal: "normal",
  strong: "too strong",
} as const;

/** How a symptom comes and goes, beside what the speed does. */
export const patternWords = {
  "comes-and-goes": "comes and goes",
  fades: "fades",
  "only-cold": "only cold",
  "only-hot": "only hot",
  "only-wet": "only wet",
  "only-bumps": "only on bumps",
} as const satisfies Readonly<Record<Pattern, string>>;

/** Whether the symptom is there now, on a button; and when a reading was taken, in the evidence. */
export const nowWords = { failing: "failing", working: "working" } as const;
export const takenWords = { failing: "while it failed", working: "while it worked" } as const;

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
