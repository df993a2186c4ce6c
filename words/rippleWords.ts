import type { RippleReading } from "@core/ripple/rippleReading";
import type { RippleReason } from "@core/ripple/rippleReason";

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** Why the humps were judged as they were, or what cannot be told, in one sentence. */
export function rippleReasonText(reason: RippleReason): string {
  switch (reason.code) {
    case "too-few-samples":
      return `too short: ${reason.samples} samples; at least ${reason.needed} are needed`;
    case "clipped":
      return "clipped: the recording stops at its top or bottom; take it again on a coarser range";
    case "wrong-scale":
      return `the mean is ${Math.round(reason.meanAmps)} A, more than a blower draws even when it is seized: check the probe's scale`;
    case "sampled-too-slowly":
      return `sampled too slowly to judge heights: ${Math.round(reason.rateHz)} Hz; at least ${Math.ceil(reason.neededHz)} Hz are needed`;
    case "two-rhythms":
      return `two rhythms, ${reason.hz.map((hz) => `${hz.toFixed(0)} Hz`).join(" and ")}, are as regular as a clock, and one is a control's chopping: enter its frequency, or record at another speed`;
    case "no-humps":
      return "no humps stand out: check that the motor runs and that the clamp is round one wire only";
    case "no-turns":
      return "no rhythm repeats turn after turn for this number of bars: try a longer, quieter recording at a steady speed, or enter the speed or the control's frequency as well";
    case "humps-too-tall":
      return "the swings are larger than a sound commutator's humps: several bad bars make them and hide the humps; enter the speed as well";
    case "one-of-two-speeds":
      return `several bars are bad, and the humps fit ${Math.round(reason.rpm[0])} rpm, or ${Math.round(reason.rpm[1])} rpm with bad bars opposite each other: enter the speed as well`;
    case "too-few-turns":
      return `too short to judge hump by hump: ${reason.turns.toFixed(1)} turns; record at least ${reason.neededSeconds.toFixed(2)} s`;
    case "noisy-over-turns":
      return "too noisy to judge hump by hump: take a longer recording, or set the clamp to a finer range";
    case "noisy-one-by-one":
      return "too noisy or too short to judge the humps one by one; enter the bars, and the humps are averaged over turns";
    case "all-even":
      return `every hump reaches at least ${percent(reason.leastShare)} of the usual height over ${reason.turns} turns`;
    case "bad-humps":
      return `hump ${reason.humps.map((hump) => hump + 1).join(", ")} of the turn reaches ${percent(reason.leastShare)} of the usual height or a little more, over ${reason.turns} turns`;
    case "one-by-one":
      return `one hump in sixty reaches ${percent(reason.weakShare)} of the usual height or less; ${reason.humps} were judged one by one`;
    case "bars-contradict-rpm":
      return `the bars and the rpm contradict each other: with ${reason.bars} bars the humps make ${Math.round(reason.rpm)} rpm, not ${Math.round(reason.givenRpm)}`;
    case "no-such-commutator":
      return `the rpm does not fit: it makes ${reason.humpsPerTurn.toFixed(1)} humps a turn, and no commutator with ${reason.poles} poles has that many`;
    case "bars-alike":
      return `${reason.humpsPerTurn} humps a turn can come from ${reason.bars.join(" or ")} bars`;
    case "no-mark":
      return "the number of bars is not known, and an even current does not show where a turn ends: enter the bars or the rpm to get the speed";
    case "repeats-not-by-turn":
      return `the number of bars is not known, and the humps repeat every ${reason.humps}, which is a turn of no commutator: enter the bars or the rpm`;
    case "repeats-once-a-brush":
      return `the number of bars is not known, and the humps repeat every ${reason.humps}: a bad bar shows once at each brush, so this need not be a whole turn; enter the bars or the rpm`;
  }
}

/** A reading of the humps with its reasons in words, as it is stored and printed. */
export const rippleWords = ({ because, cannot, ...reading }: RippleReading) => ({
  ...reading,
  because: rippleReasonText(because),
  cannot: cannot.map(rippleReasonText),
});
export type RippleInWords = ReturnType<typeof rippleWords>;
