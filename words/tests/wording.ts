import type { Circuit } from "@core/circuit/circuit";
import type { Reading, ReadingOf, Test, TestName, TestOf } from "@core/predict/reading";
import type { SeenName } from "../seenName";

/** What to do, for the heading of a card: words around the points to touch. */
export interface TestWords {
  readonly before: string;
  readonly points: readonly SeenName[];
  /** The text between the points. */
  readonly between: string;
  readonly after: string;
  /** The set-up, the location, and anything else to know, in sentences. */
  readonly how: string;
}

/** A test's own heading for a card: its points by id, and one more sentence if it needs one. */
interface Card extends Pick<TestWords, "before">, Partial<Pick<TestWords, "between" | "after">> {
  readonly points: readonly string[];
  readonly also?: string;
}

/** Names a point, part or wire for a sentence. */
type Named = (id: string) => string;

/** All words for one test. */
interface Wording<T, R> {
  /** Its name in a list of tests. */
  readonly title: string;
  /** Its name on a small button. */
  readonly short: string;
  /** What to do, on a button of the practice bay. */
  readonly action: string;
  /** What to choose for it: two points, or one thing. */
  readonly picks: readonly string[];
  /** The display's unit. */
  readonly unit?: string;
  /** A display with its unit. */
  readonly display?: (value: number) => string;
  /** What may be typed. */
  readonly hint?: string;
  /** What to do, in a few words: `ohms from X5:1 to X5:4`. */
  readonly toDo: (test: T, named: Named) => string;
  /** The result, as a word or a figure with its unit. */
  readonly result: (reading: R) => string;
  /** One of the words a test can give, for display; the word itself by default. */
  readonly word?: (seen: string) => string;
  readonly card: (circuit: Circuit, test: T) => Card;
}

export type TestWording = Wording<Test, Reading> &
  Required<Pick<Wording<Test, Reading>, "word">> & { readonly name: TestName };

/** The words for one test in the list of all; they refuse a test of another kind. */
export function wording<T extends TestName>(name: T, own: Wording<TestOf<T>, ReadingOf<T>>): TestWording {
  const isTest = (test: Test): test is TestOf<T> => test.test === name;
  const isReading = (reading: Reading): reading is ReadingOf<T> => reading.test === name;
  const refuse = (test: Test): never => {
    throw new RangeError(`words asked for a "${test.test}", not a "${name}"`);
  };
  return {
    ...own,
    name,
    word: own.word ?? ((seen) => seen),
    toDo: (test, named) => (isTest(test) ? own.toDo(test, named) : refuse(test)),
    result: (reading) => (isReading(reading) ? own.result(reading) : refuse(reading)),
    card: (circuit, test) => (isTest(test) ? own.card(circuit, test) : refuse(test)),
  };
}
