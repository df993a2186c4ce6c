/** The learning state of one item: how easy it is, how often it was right in a row, when it is due again. */
export interface Recall {
  /** Easiness: the factor by which an interval grows. */
  readonly ease: number;
  readonly repetitions: number;
  readonly intervalDays: number;
}

/** Before the first answer. */
export const freshRecall: Recall = { ease: 2.5, repetitions: 0, intervalDays: 0 };

const leastEase = 1.3;
/** An answer below this quality counts as forgotten. */
const remembered = 3;

/**
 * How one answer changes when an item is asked again: algorithm SM-2. Right answers come again after one day, six
 * days, and then by the easiness; a wrong one starts again at one day.
 * @param quality 0 (nothing remembered) to 5 (at once and right) @see P. A. Woźniak, "Optimization of learning",
 *   University of Technology in Poznań, 1990, section 3.2 (algorithm SM-2)
 */
export function recallAfter(recall: Recall, quality: 0 | 1 | 2 | 3 | 4 | 5): Recall {
  // Forgotten: start again, with the easiness unchanged.
  if (quality < remembered) return { ease: recall.ease, repetitions: 0, intervalDays: 1 };
  const slack = 5 - quality;
  const ease = Math.max(leastEase, recall.ease + 0.1 - slack * (0.08 + slack * 0.02));
  const repetitions = recall.repetitions + 1;
  const intervalDays = repetitions === 1 ? 1 : repetitions === 2 ? 6 : Math.ceil(recall.intervalDays * ease);
  return { ease, repetitions, intervalDays };
}

/** When it is due, in milliseconds since 1970, after an answer at a given time. */
export const dueAt = ({ intervalDays }: Recall, answeredAt: number): number =>
  answeredAt + intervalDays * 86_400_000;

/**
 * Quality of an answer from whether it was right and how long it took. SM-2 asks the learner; Airway uses the clock
 * (judgement: ten seconds is at once, forty is slow).
 */
export function qualityOf(right: boolean, seconds: number): 0 | 1 | 2 | 3 | 4 | 5 {
  if (!right) return 1;
  return seconds <= 10 ? 5 : seconds <= 40 ? 4 : 3;
}
