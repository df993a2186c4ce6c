import { notListed } from "../../fault/repair";
import { type Forecast, type ForecastOutcome, type Range, rangeText } from "./forecast";

/** The most outcomes of a display that a person is shown. */
const mostShown = 5;

/** The repair that leads after an outcome; -1 if a cause outside the list does. */
function leaderAfter({ repairs }: Forecast, outcome: ForecastOutcome): number {
  let best = -1;
  repairs.forEach((repair, at) => {
    if (repair === notListed) return;
    if (best < 0 || (outcome.repairs[at] as number) > (outcome.repairs[best] as number)) best = at;
  });
  return best;
}

/** An outcome as a person reads it, and the ranges it was joined from, if there were several. */
export interface ReadableOutcome extends ForecastOutcome {
  readonly pieces: readonly ForecastOutcome[];
}

const piecesOf = (outcome: ReadableOutcome): readonly ForecastOutcome[] =>
  outcome.pieces.length > 0 ? outcome.pieces : [outcome];

/** Two neighbouring ranges as one. A number in it is taken from the likelier of the two, where a display can be. */
function joined(one: ReadableOutcome, other: ReadableOutcome): ReadableOutcome {
  const p = one.p + other.p;
  const likelier = one.p >= other.p ? one : other;
  const range: Range = {
    low: Math.min(one.range?.low ?? 0, other.range?.low ?? 0),
    high: Math.max(one.range?.high ?? 0, other.range?.high ?? 0),
  };
  return {
    seen: rangeText(range),
    value: likelier.value,
    range,
    p,
    pieces: [...piecesOf(one), ...piecesOf(other)],
    repairs: one.repairs.map((own, at) => (one.p * own + other.p * (other.repairs[at] as number)) / p),
  };
}

const alone = ({ seen, value, range, p, repairs }: ForecastOutcome): ReadableOutcome => ({
  seen,
  value,
  range,
  p,
  repairs,
  pieces: [],
});

/** OL (open) stays an outcome of its own: it is a word on the meter, not a figure. */
const isOpen = ({ range }: ForecastOutcome): boolean => range !== null && !Number.isFinite(range.low);

/**
 * The outcomes of a test as a person reads them: neighbouring ranges that lead to the same repair are one, and of the
 * rest the least likely are joined to a neighbour until there are few. Words stay as they are.
 */
export function readableOutcomes(forecast: Forecast): ReadableOutcome[] {
  const outcomes = forecast.outcomes.map((own): ReadableOutcome => alone(own));
  if (outcomes.some(({ range }) => range === null)) return outcomes;
  const ranges: ReadableOutcome[] = [];
  for (const own of outcomes) {
    const last = ranges.at(-1);
    const same =
      last && !isOpen(last) && !isOpen(own) && leaderAfter(forecast, last) === leaderAfter(forecast, own);
    if (same) ranges[ranges.length - 1] = joined(last, own);
    else ranges.push(own);
  }
  while (ranges.length > mostShown) {
    // The pair whose less likely half is least likely is lost least by joining.
    let at = -1;
    for (let i = 0; i + 1 < ranges.length; i++) {
      const [one, other] = [ranges[i] as ReadableOutcome, ranges[i + 1] as ReadableOutcome];
      if (isOpen(one) || isOpen(other)) continue;
      const lost = (place: number): number =>
        Math.min((ranges[place] as ForecastOutcome).p, (ranges[place + 1] as ForecastOutcome).p);
      if (at < 0 || lost(i) < lost(at)) at = i;
    }
    if (at < 0) break;
    ranges.splice(at, 2, joined(ranges[at] as ReadableOutcome, ranges[at + 1] as ReadableOutcome));
  }
  return ranges;
}
