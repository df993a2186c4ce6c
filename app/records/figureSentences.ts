import { minutesText, percent } from "@core/units/wording";

// One sentence for each picture of the statistics: what it says about the shop.

const none = "No closed job counts here yet.";

interface FaultCounts {
  readonly words: string;
  /** Number of kinds of fault in it; several rare ones are shown as one. */
  readonly kinds: number;
  readonly counts: readonly number[];
}

/** Which fault the shop finds most often. */
export function faultSentence(faults: readonly FaultCounts[]): string {
  const sums = faults.map(({ words, kinds, counts }) => ({
    words,
    kinds,
    n: counts.reduce((sum, n) => sum + n, 0),
  }));
  const total = sums.reduce((sum, { n }) => sum + n, 0);
  const [most] = sums.filter(({ kinds }) => kinds === 1).sort((a, b) => b.n - a.n);
  if (!most || total === 0) return none;
  return `The fault found most often is: ${most.words}, in ${most.n} of ${total} jobs.`;
}

interface Minutes {
  readonly minutesThere: number | null;
  readonly chartMinutes: number | null;
  readonly chartJobs: number;
}

/** How the shop's time to the verdict compares with a fixed test order. */
export function minutesSentence(minutes: readonly Minutes[]): string {
  const own = minutes.filter(({ chartJobs }) => chartJobs > 0);
  const jobs = own.reduce((sum, { chartJobs }) => sum + chartJobs, 0);
  if (jobs === 0) return none;
  const mean = (of: (own: Minutes) => number | null): number =>
    own.reduce((sum, line) => sum + (of(line) ?? 0) * line.chartJobs, 0) / jobs;
  const [here, chart] = [mean((line) => line.minutesThere), mean((line) => line.chartMinutes)];
  return `On ${jobs} ${jobs === 1 ? "job" : "jobs"} a verdict took ${minutesText(here)} on average; a fixed test order would have taken ${minutesText(chart)}.`;
}

interface Odds {
  readonly trials: number;
  readonly bins: readonly { readonly said: number; readonly hits: number; readonly trials: number }[];
}

/** Whether verdicts hold as often as they say. */
export function oddsSentence({ bins }: Odds): string {
  const trials = bins.reduce((sum, bin) => sum + bin.trials, 0);
  if (trials === 0) return "No verdict has an outcome yet.";
  const held = bins.reduce((sum, { hits }) => sum + hits, 0);
  const said = bins.reduce((sum, bin) => sum + bin.said * bin.trials, 0) / trials;
  return `${held} of ${trials} verdicts held (${percent(held / trials)}); on average they said ${percent(said)}.`;
}

interface Cause {
  readonly cause: string;
  readonly jobs: number;
  readonly comebacks: number;
}

/** Whether jobs whose root cause was found come back less often. */
export function causeSentence(causes: readonly Cause[]): string {
  const of = (cause: string) => causes.find((own) => own.cause === cause);
  const [found, not] = [of("found"), of("not-found")];
  if (!found?.jobs || !not?.jobs) return "There are too few jobs to compare.";
  return `With the root cause found ${found.comebacks} of ${found.jobs} jobs came back, without it ${not.comebacks} of ${not.jobs}.`;
}

interface Month {
  readonly month: string;
  readonly jobs: number;
  readonly total: number;
}

/** Compares the last month's billing with the average of the months before. */
export function moneySentence(months: readonly Month[], money: (total: number) => string): string {
  const last = months.at(-1);
  if (!last) return none;
  const before = months.slice(0, -1);
  const words = `${last.month}: ${money(last.total)} billed on ${last.jobs} ${last.jobs === 1 ? "job" : "jobs"}`;
  if (before.length === 0) return `${words}.`;
  const mean = before.reduce((sum, { total }) => sum + total, 0) / before.length;
  return `${words}; the months before brought ${money(mean)} on average.`;
}
