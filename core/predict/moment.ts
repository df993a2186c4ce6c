import type { Fault } from "../fault/fault";

/** Whether the symptom was there when a reading was taken. */
export const states = ["failing", "working"] as const;
export const temperatures = ["cold", "hot"] as const;
/** How a symptom comes and goes, as the customer tells it of one speed. */
export const patterns = [
  "comes-and-goes",
  "fades",
  "only-cold",
  "only-hot",
  "only-wet",
  "only-bumps",
] as const;
export type Pattern = (typeof patterns)[number];

/** What a reading says of the time it was taken. */
export interface Timed {
  readonly test: string;
  readonly heard?: boolean | undefined;
  readonly state?: (typeof states)[number] | undefined;
  readonly temperature?: (typeof temperatures)[number] | undefined;
  /** Minutes since the blower was switched on. */
  readonly minutesIn?: number | undefined;
  readonly pattern?: Pattern | undefined;
}

/**
 * The moment a reading tells of: `usual` on a job that is the same all the time; `failing` and `working` where someone
 * said so; `hot` and `cold` for what heat brings on; `unsaid` where the symptom comes and goes and nobody said.
 */
export type Moment = "usual" | "failing" | "working" | "hot" | "cold" | "unsaid";

/** Whether a job's readings tell that its symptom comes and goes. */
export const comesAndGoes = (readings: readonly Timed[]): boolean =>
  readings.some(({ pattern, state }) => pattern !== undefined || state === "working");

/** Minutes after which a part that heats up is hot, and before which it is cold (judgement, no source). */
const hotAfter = 8;
const coldBefore = 2;

/**
 * The moment of one reading. A complaint tells what happens while it fails.
 * @param varies whether the job's symptom comes and goes
 */
export function momentOf(
  { heard, state, temperature, minutesIn = coldBefore }: Timed,
  varies: boolean,
): Moment {
  if (state) return state;
  if (heard) return varies ? "failing" : "usual";
  if (temperature) return temperature;
  if (minutesIn >= hotAfter) return "hot";
  if (minutesIn < coldBefore) return "cold";
  return varies ? "unsaid" : "usual";
}

/** Faults that heat brings on. */
const heated: ReadonlySet<string> = new Set(["thermal", "fades-hot", "iced"]);

/**
 * Probability that a fault is there at a moment. A symptom called gone is still there in one reading of 25, because
 * nobody looked again; where it comes and goes and nobody said, it is there in seven of ten; heat brings a heated
 * fault on in nine of ten (judgements, no source).
 * @param usual the probability on a job of which no pattern is told
 */
function presentShare(modes: readonly string[], usual: number, moment: Moment): number {
  switch (moment) {
    case "failing":
      return 1;
    case "working":
      return 0.04;
    case "unsaid":
      return Math.min(usual, 0.7);
    case "hot":
    case "cold":
      return modes.some((mode) => heated.has(mode)) ? (moment === "hot" ? 0.9 : 0.1) : usual;
    case "usual":
      return usual;
  }
}

/** A row of the tables, and in what share of readings it is the one that counts. */
export interface RowShare {
  readonly row: number;
  readonly share: number;
}

/** A suspect's table rows at a moment, the likelier first: the fault's own row, and the healthy one. */
export function rowsAt(
  row: number,
  { names, presentShare: usual }: Fault,
  moment: Moment,
): readonly RowShare[] {
  const share = presentShare(
    names.map(({ mode }) => mode),
    usual,
    moment,
  );
  if (row === 0 || share >= 1) return [{ row, share: 1 }];
  const both = [
    { row, share },
    { row: 0, share: 1 - share },
  ];
  return moment === "working" || moment === "cold" ? both.reverse() : both;
}
