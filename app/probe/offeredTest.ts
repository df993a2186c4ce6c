import type { Caution } from "@core/diagnose/tests/caution";
import type { TestWords } from "@words/tests/wording";

/** A suggested test, as the page shows it. */
export interface OfferedTest {
  /** The test as JSON, to be sent back with its result. */
  readonly look: string;
  readonly test: string;
  readonly words: TestWords;
  readonly minutes: number;
  /** The visit it is part of; null if it is not part of the next one. */
  readonly visit: { readonly place: string; readonly minutes: number } | null;
  readonly bits: number;
  readonly why: string;
  readonly setting: string | null;
  readonly probe: string | null;
  /** True if a fuse pulled to silence the blower has to be back for this test. */
  readonly needsPower: boolean;
  /** Cautions of this test that were not acknowledged yet. */
  readonly cautions: readonly Caution[];
  readonly outcomes: readonly {
    readonly seen: string;
    /** A word for a display's range: `battery voltage`; null for a word, and where none says it. */
    readonly lead: string | null;
    /** The outcome in words: its word, or its range with the unit. */
    readonly words: string;
    /** A number in the range, to two digits; null for a word, and for OL (open). */
    readonly value: number | null;
    readonly p: number;
    /** The ranges it was joined from, to choose among; empty for a word or a single range. */
    readonly pieces: readonly { readonly words: string; readonly value: number }[];
    readonly leaves: string;
  }[];
  /** Words that can be entered; null for a test with a number. */
  readonly choices: readonly string[] | null;
  readonly unit: string | null;
}
