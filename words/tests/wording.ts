import type { Circuit } from "@core/circuit/circuit";
import type { Reading, ReadingOf, Test, TestName, TestOf } from "@core/predict/reading";

/** What to do, for the head of a card: words around the points to touch. */
export interface TestWords {
  readonly before: string;
  readonly points: readonly string[];
  readonly between: string;
  readonly after: string;
  /** The set-up and how to know the point: its wire's colour, its place. */
  readonly how: string;
}

/** What the head of a card says beside its points. */
type Card = Pick<TestWords, "before" | "points" | "how"> & Partial<TestWords>;

/** Everything that is said of one test. */
interface Wording<T, R> {
  /** Its name in a list of tests. */
  readonly title: string;
  /** Its name on a small button. */
  readonly short: string;
  /** What to do, on a button of the practice bay. */
  readonly action: string;
  /** What is chosen for it: two points, or one thing. */
  readonly picks: readonly string[];
  /** The display's unit. */
  readonly unit?: string;
  /** A display with its unit. */
  readonly display?: (value: number) => string;
  /** What may be typed. */
  readonly hint?: string;
  /** What to do, in a few words: `light clipped to G1.+, touch X5:2`. */
  readonly toDo: (test: T) => string;
  /** What was seen, in a word or a figure with its unit; the word itself unless said otherwise. */
  readonly result: (reading: R) => string;
  /** @param setup the set-up as a sentence */
  readonly card: (circuit: Circuit, test: T, setup: string) => Card;
}

export type TestWording = Omit<Wording<Test, Reading>, "card"> & {
  readonly name: TestName;
  readonly card: (circuit: Circuit, test: Test, setup: string) => TestWords;
};

/** The words for one test, as they stand in the list of all; they refuse a test of another kind. */
export function wording<T extends TestName>(name: T, own: Wording<TestOf<T>, ReadingOf<T>>): TestWording {
  const isTest = (test: Test): test is TestOf<T> => test.test === name;
  const isReading = (reading: Reading): reading is ReadingOf<T> => reading.test === name;
  const refuse = (test: Test): never => {
    throw new RangeError(`words asked for a "${test.test}", not a "${name}"`);
  };
  const card = (circuit: Circuit, test: TestOf<T>, setup: string): TestWords => ({
    between: "",
    after: "",
    ...own.card(circuit, test, setup),
  });
  return {
    ...own,
    name,
    toDo: (test) => (isTest(test) ? own.toDo(test) : refuse(test)),
    result: (reading) => (isReading(reading) ? own.result(reading) : refuse(reading)),
    card: (circuit, test, setup) => (isTest(test) ? card(circuit, test, setup) : refuse(test)),
  };
}
