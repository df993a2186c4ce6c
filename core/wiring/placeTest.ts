import { contentKey, type Reading } from "../predict/reading";
import type { Meanings } from "./meaning";
import type { LabelledPin, Meaning, Piece } from "./piece";
import { type PlugPlace, plugPlaces } from "./place";
import { type PlaceReading, placeReadingSchema } from "./placeReading";

type WithoutResult<R> = R extends { readonly absent: true }
  ? never
  : R extends unknown
    ? Omit<R, "seen" | "volts" | "ohms" | "amps" | "followsSpeed">
    : never;
/** A reading by place without its result: what to do, not yet the outcome. */
export type PlaceTest = WithoutResult<PlaceReading>;

/** Keys of a reading by place that are its result, or say when and how it was taken. */
const notOfTest = [
  ...["seen", "volts", "ohms", "amps", "absent", "followsSpeed"],
  ...["heard", "state", "temperature", "minutesIn", "pattern"],
];

/** A text that is equal for the same test by place. */
export const placeTestKey = (test: PlaceTest): string => contentKey(test);

/** The same for the test of a reading. */
export const keyOfPlaceReading = (reading: PlaceReading): string =>
  contentKey(Object.fromEntries(Object.entries(reading).filter(([key]) => !notOfTest.includes(key))));

/** Minutes of a test by place: on the spot, and for each pin or fuse. */
export function placeTestMinutes(test: PlaceTest, pins: number): number {
  switch (test.test) {
    case "light":
      return 0.4 + (test.at === "fuses" ? 0.2 : 0.1) * pins;
    case "volts":
      return "at" in test ? 0.5 + 0.2 * pins : 0.7;
    case "ohms":
      return 0.8 + 0.2 * pins;
    case "amps":
      return 1;
    case "airflow":
      return test.leads ? 1.5 : test.unplugged ? 0.8 : 0.3;
    case "lampload":
      return 2.5;
    case "wires":
      return 0.3;
    case "look":
      return 0.4;
    case "spin":
    case "swap":
      return 1.5;
    case "listen":
      return 0.5;
    case "smell":
    case "history":
      return 0.2;
    case "tap":
      return 0.6;
    case "ripple":
      return 2;
  }
}

/** The labelled pins and fuses that a reading names. */
function labelsIn(reading: PlaceReading): LabelledPin[] {
  if ("absent" in reading) return [];
  const ends = [
    ...("around" in reading ? [reading.around] : []),
    ...("red" in reading ? [reading.red] : []),
    ...("black" in reading ? [reading.black] : []),
  ];
  const named = ends.flatMap((end) => {
    const [place, label] = end.split(":");
    const plug = plugPlaces.find((own) => own === place);
    return plug && label ? [{ place: plug, label }] : [];
  });
  const at =
    "at" in reading ? [...plugPlaces, "fuses" as const].find((own) => own === reading.at) : undefined;
  const values = Object.values<unknown>(reading).find((value) => typeof value === "object" && value !== null);
  const listed = at && values ? Object.keys(values).map((label) => ({ place: at, label })) : [];
  const from = at && "from" in reading ? [{ place: at, label: reading.from }] : [];
  return [...named, ...from, ...listed];
}

/** The labels met so far at each place, in order. */
export function labelsMet(readings: readonly PlaceReading[]): Map<LabelledPin["place"], string[]> {
  const met = new Map<LabelledPin["place"], string[]>();
  for (const { place, label } of readings.flatMap(labelsIn)) {
    const labels = met.get(place) ?? [];
    if (!labels.includes(label)) met.set(place, [...labels, label].sort());
  }
  return met;
}

/** Labels for a plug whose pins nobody has named yet. */
export const freshLabels = (count: number): string[] =>
  Array.from({ length: count }, (_, at) => String.fromCharCode(97 + at));

const filled = <V>(labels: readonly string[], value: V): Record<string, V> =>
  Object.fromEntries(labels.map((label) => [label, value]));

/** Some result of each test whose result is one word. */
const anyWord = {
  airflow: "none",
  lampload: "dark",
  look: "clean",
  spin: "free",
  listen: "quiet",
  smell: "none",
  history: "no",
  tap: "nothing",
  swap: "same",
  ripple: "even",
} as const;

/** Some result of a test by place. */
function anyResult(test: PlaceTest, labels: readonly string[]): object {
  switch (test.test) {
    case "light":
      return { seen: filled(labels, test.at === "fuses" ? "good" : "dark") };
    case "wires":
      return { seen: filled(labels, "BK thick") };
    case "volts":
      return { volts: "at" in test ? filled(labels, 0) : 0 };
    case "ohms":
      return { ohms: filled(labels, 0) };
    case "amps":
      return { amps: 0 };
    default:
      return { seen: anyWord[test.test] };
  }
}

/**
 * A reading of a test with some result, so that it can be read in pieces.
 * @param labels the labels of the plug it is taken at
 */
export const withAnyResult = (test: PlaceTest, labels: readonly string[]): PlaceReading =>
  placeReadingSchema.parse({ ...test, ...anyResult(test, labels) });

/** The concrete readings behind a piece, given what labels stand for. */
export function concreteReadings(piece: Piece, meaning: (of: LabelledPin) => Meaning): Reading[] {
  if (piece.kind === "plain") return [piece.reading];
  if (piece.kind === "pin") return piece.read(meaning(piece.of));
  if (piece.kind === "pair") {
    const reading = piece.read(piece.of.map(meaning));
    return reading ? [reading] : [];
  }
  return [];
}

/** The label that stands for a point of a plug, if one is known. */
export function labelOf(meanings: Meanings, place: PlugPlace, point: string): string | null {
  for (const [label, { pin }] of meanings.get(place) ?? [])
    if (pin && (pin.point === point || pin.terminal === point)) return label;
  return null;
}
