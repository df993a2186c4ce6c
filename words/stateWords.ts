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

/** A verdict's state, on a card. */
export const verdictWords = {
  open: "not certain yet",
  settled: "confirmed",
  "best-guess": "best guess",
} as const;
