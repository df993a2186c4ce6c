import type { ReadingOf, TestName, TestOf } from "../reading";
import type { CompiledCircuit } from "../tables/compiledCircuit";

export const allTools = [
  "test-light",
  "meter",
  "clamp",
  "scope",
  "jump-leads",
  "load-lamp",
  "spare-relay",
] as const;
export type Tool = (typeof allTools)[number];

interface TestBase<T extends TestName> {
  readonly test: T;
  /** Minutes once there, from the format's table. */
  readonly minutes: number;
  /** What it is done with; a set-up may need more (`toolsNeeded`). */
  readonly tools: readonly Tool[];
  /** What is wrong with a look for this circuit: unknown points or parts, by key. */
  readonly problems: (compiled: CompiledCircuit, test: TestOf<T>) => { path: string; message: string }[];
  /** Points, parts or connectors that must be within reach. */
  readonly reaches: (test: TestOf<T>, compiled: CompiledCircuit) => string[];
  /** The looks of this kind worth weighing on this circuit. */
  readonly candidates: (compiled: CompiledCircuit) => TestOf<T>[];
  /** Looks worth weighing only while a short is among the suspects. */
  readonly shortHunt?: (compiled: CompiledCircuit) => TestOf<T>[];
}

/** Fills `out` with the odds of each outcome for one suspect in one drawn vehicle. */
export type OddsAt = (variant: number, sample: number, out: Float64Array) => void;

/** A test whose result is one of a few words. */
export interface WordObservation<T extends TestName> extends TestBase<T> {
  readonly gives: "word";
  readonly outcomes: readonly string[];
  readonly odds: (compiled: CompiledCircuit, test: TestOf<T>, heard: boolean) => OddsAt;
  readonly seen: (reading: ReadingOf<T>) => string;
  /** A second thing told by the same reading: its odds by suspect, and if anything could have been. */
  readonly also?: (
    compiled: CompiledCircuit,
    reading: ReadingOf<T>,
  ) => { readonly odds: (variant: number) => number; readonly blind: number } | null;
}

/** A test whose result is a number on a display; Infinity stands for "no end". */
export interface NumberObservation<T extends TestName> extends TestBase<T> {
  readonly gives: "number";
  /** The display in one table row and draw. */
  readonly value: (compiled: CompiledCircuit, test: TestOf<T>) => (row: number, sample: number) => number;
  /** Standard deviation of a reading around a predicted display, instrument and model together. */
  readonly sigma: (value: number) => number;
  /** Width of display, on the test's scale, that counts as one outcome. */
  readonly window: number;
  /** Probability of a display when anything could have been: a slip, or a cause outside the model. */
  readonly blind: (seen: number) => number;
  /** Distance between displays on the scale on which they are compared: volts plain, ohms by ratio. */
  readonly scale: (value: number) => number;
  readonly seen: (reading: ReadingOf<T>) => number;
}

export type Observation<T extends TestName = TestName> = T extends TestName
  ? WordObservation<T> | NumberObservation<T>
  : never;

/** Every tool a look needs: its test's own, leads for what is bridged, a lamp for a part's place. */
export function toolsNeeded(tools: readonly Tool[], test: TestOf<TestName>): Tool[] {
  return [
    ...tools,
    ...((test.bridged ?? []).length > 0 ? (["jump-leads"] as const) : []),
    ...(test.lampFor === undefined ? [] : (["load-lamp"] as const)),
  ];
}

/** Odds of a suspect from the odds of its table rows, by how often each is met. */
export function mixRows(
  compiled: CompiledCircuit,
  rowOdds: (row: number, sample: number, out: Float64Array) => void,
  count: number,
): OddsAt {
  const own = new Float64Array(count);
  return (variant, sample, out) => {
    const rows = compiled.rowsOf(variant);
    if (rows.length === 1) {
      rowOdds(rows[0]?.row ?? 0, sample, out);
      return;
    }
    out.fill(0);
    for (const { row, share } of rows) {
      rowOdds(row, sample, own);
      for (let i = 0; i < count; i++) out[i] = (out[i] as number) + share * (own[i] as number);
    }
  };
}
