/** Why the ripples were judged as they were, or what the recording cannot show, with figures. */
export type RippleReason =
  | { readonly code: "too-few-samples"; readonly samples: number; readonly needed: number }
  | { readonly code: "clipped" }
  | { readonly code: "wrong-scale"; readonly meanAmps: number }
  | { readonly code: "sampled-too-slowly"; readonly rateHz: number; readonly neededHz: number }
  | { readonly code: "two-rhythms"; readonly hz: readonly number[] }
  | { readonly code: "no-humps" }
  | { readonly code: "no-turns" }
  | { readonly code: "humps-too-tall" }
  | { readonly code: "one-of-two-speeds"; readonly rpm: readonly [number, number] }
  | { readonly code: "too-few-turns"; readonly turns: number; readonly neededSeconds: number }
  | { readonly code: "noisy-over-turns" }
  | { readonly code: "noisy-one-by-one" }
  /** Heights as a share of the usual height. */
  | { readonly code: "all-even"; readonly leastShare: number; readonly turns: number }
  | {
      readonly code: "bad-humps";
      /** From 0. */
      readonly humps: readonly number[];
      readonly leastShare: number;
      readonly turns: number;
    }
  | { readonly code: "one-by-one"; readonly weakShare: number; readonly humps: number }
  | {
      readonly code: "bars-contradict-rpm";
      readonly bars: number;
      readonly rpm: number;
      readonly givenRpm: number;
    }
  | { readonly code: "no-such-commutator"; readonly humpsPerTurn: number; readonly poles: number }
  | { readonly code: "bars-alike"; readonly humpsPerTurn: number; readonly bars: readonly number[] }
  | { readonly code: "no-mark" }
  /** The ripples repeat after this many, which is no commutator's turn, or which bad bars cause once per brush. */
  | { readonly code: "repeats-not-by-turn" | "repeats-once-a-brush"; readonly humps: number };
