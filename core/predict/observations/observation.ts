import type { LookOf, ReadingOf, TestName } from "../reading";
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
  readonly problems: (compiled: CompiledCircuit, look: LookOf<T>) => { path: string; message: string }[];
  /** Points, parts or connectors that must be within reach. */
  readonly reaches: (look: LookOf<T>, compiled: CompiledCircuit) => string[];
  /** The looks of this kind worth weighing on this circuit. */
  readonly candidates: (compiled: CompiledCircuit) => LookOf<T>[];
  /** Looks worth weighing only while a short is among the suspects. */
  readonly shortHunt?: (compiled: CompiledCircuit) => LookOf<T>[];
}

/** Fills `out` with the odds of each outcome for one suspect in one drawn vehicle. */
export type OddsAt = (variant: number, draw: number, out: Float64Array) => void;

/** A test whose result is one of a few words. */
export interface WordTest<T extends TestName> extends TestBase<T> {
  readonly gives: "word";
  readonly outcomes: readonly string[];
  readonly odds: (compiled: CompiledCircuit, look: LookOf<T>, heard: boolean) => OddsAt;
  readonly seen: (reading: ReadingOf<T>) => string;
  /** A second thing told by the same reading: its odds by suspect, and if anything could have been. */
  readonly also?: (
    compiled: CompiledCircuit,
    reading: ReadingOf<T>,
  ) => { readonly odds: (variant: number) => number; readonly blind: number } | null;
}

/** A test whose result is a number on a display; Infinity stands for "no end". */
export interface NumberTest<T extends TestName> extends TestBase<T> {
  readonly gives: "number";
  /** The display in one table row and draw. */
  readonly value: (compiled: CompiledCircuit, look: LookOf<T>) => (row: number, draw: number) => number;
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

export type TestModel<T extends TestName = TestName> = T extends TestName
  ? WordTest<T> | NumberTest<T>
  : never;

/** Every tool a look needs: its test's own, leads for what is bridged, a lamp for a part's place. */
export function toolsNeeded(tools: readonly Tool[], look: LookOf<TestName>): Tool[] {
  return [
    ...tools,
    ...((look.bridged ?? []).length > 0 ? (["jump-leads"] as const) : []),
    ...(look.lampFor === undefined ? [] : (["load-lamp"] as const)),
  ];
}

/** Odds of a suspect from the odds of its table rows, by how often each is met. */
export function mixRows(
  compiled: CompiledCircuit,
  rowOdds: (row: number, draw: number, out: Float64Array) => void,
  count: number,
): OddsAt {
  const own = new Float64Array(count);
  return (variant, draw, out) => {
    const rows = compiled.rowsOf(variant);
    if (rows.length === 1) {
      rowOdds(rows[0]?.row ?? 0, draw, out);
      return;
    }
    out.fill(0);
    for (const { row, share } of rows) {
      rowOdds(row, draw, own);
      for (let i = 0; i < count; i++) out[i] = (out[i] as number) + share * (own[i] as number);
    }
  };
}
