import type { RippleReading } from "@core/ripple/rippleReading";
import type { RippleReason } from "@core/ripple/rippleReason";

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** Why the ripple was judged as it was, or what cannot be determined, in one sentence. */
export function rippleReasonText(reason: RippleReason): string {
  switch (reason.code) {
    case "too-few-samples":
      return `too short: ${reason.samples} samples; at least ${reason.needed} are needed`;
    case "clipped":
      return "clipped: the signal goes beyond the range of the scope; record again with a coarser range";
    case "wrong-scale":
      return `the mean is ${Math.round(reason.meanAmps)} A, more than a blower draws even when it is seized: check the probe's scale`;
    case "sampled-too-slowly":
      return `sampled too slowly to judge the ripple: ${Math.round(reason.rateHz)} Hz; at least ${Math.ceil(reason.neededHz)} Hz are needed`;
    case "two-rhythms":
      return `two rhythms, ${reason.hz.map((hz) => `${hz.toFixed(0)} Hz`).join(" and ")}, are equally regular, and one of them is the PWM of a control module; enter its frequency, or record at another speed`;
    case "no-humps":
      return "no ripple found: check that the motor runs and that the clamp is around one wire only";
    case "no-turns":
      return "nothing repeats from turn to turn with this number of bars: try a longer, quieter recording at a steady speed, or also enter the speed or the PWM frequency";
    case "humps-too-tall":
      return "the current varies more than the ripple of a good commutator; several bad bars hide the ripple, so also enter the speed";
    case "one-of-two-speeds":
      return `several bars are bad, and the ripple fits ${Math.round(reason.rpm[0])} rpm, or ${Math.round(reason.rpm[1])} rpm with bad bars opposite each other; also enter the speed`;
    case "too-few-turns":
      return `too short to judge single ripples: ${reason.turns.toFixed(1)} turns; record at least ${reason.neededSeconds.toFixed(2)} s`;
    case "noisy-over-turns":
      return "too noisy to judge single ripples: make a longer recording, or set the clamp to a finer range";
    case "noisy-one-by-one":
      return "too noisy or too short to judge single ripples; enter the number of bars, and the ripple is averaged over turns";
    case "all-even":
      return `every ripple reaches at least ${percent(reason.leastShare)} of the usual height over ${reason.turns} turns`;
    case "bad-humps": {
      const places = reason.humps.map((hump) => hump + 1).join(", ");
      const some =
        reason.humps.length > 1
          ? `ripples ${places} of the turn reach`
          : `ripple ${places} of the turn reaches`;
      return `${some} ${percent(reason.leastShare)} of the usual height or slightly more, over ${reason.turns} turns`;
    }
    case "one-by-one":
      return `one ripple in sixty reaches ${percent(reason.weakShare)} of the usual height or less; ${reason.humps} were judged one by one`;
    case "bars-contradict-rpm":
      return `the bars and the rpm contradict each other: with ${reason.bars} bars the ripple gives ${Math.round(reason.rpm)} rpm, not ${Math.round(reason.givenRpm)}`;
    case "no-such-commutator":
      return `the rpm does not fit: it gives ${reason.humpsPerTurn.toFixed(1)} ripples per turn, which no commutator with ${reason.poles} poles has`;
    case "bars-alike":
      return `${reason.humpsPerTurn} ripples per turn can come from ${reason.bars.join(" or ")} bars`;
    case "no-mark":
      return "the number of bars is not known, and an even ripple does not show where a turn ends; enter the bars or the rpm to get the speed";
    case "repeats-not-by-turn":
      return `the number of bars is not known, and the ripple repeats every ${reason.humps}, which fits no commutator; enter the bars or the rpm`;
    case "repeats-once-a-brush":
      return `the number of bars is not known, and the ripple repeats every ${reason.humps}; a bad bar shows once at each brush, so this may not be a whole turn; enter the bars or the rpm`;
  }
}

/** A ripple reading with its reasons in words, as it is stored and printed. */
export const rippleWords = ({ because, cannot, ...reading }: RippleReading) => ({
  ...reading,
  because: rippleReasonText(because),
  cannot: cannot.map(rippleReasonText),
});
export type RippleInWords = ReturnType<typeof rippleWords>;
