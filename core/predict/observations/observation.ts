import type { z } from "zod";
import type { Problem } from "../../problem/problem";
import type { Setup } from "../../solve/netlist/setup";
import type { Timed } from "../moment";
import type { CompiledCircuit } from "../tables/compiledCircuit";
import type { RowCells } from "../tables/setupTable";
import type { TestedVehicle } from "./testedVehicle";
import type { TestForm } from "./testForm";
import type { Tool } from "./tool";

/** A test of any kind, and a reading of any kind. */
export type AnyTest = Setup & { readonly test: string };
export type AnyReading = AnyTest & Omit<Timed, "test">;

/** The format of one test's readings: a strict object identified by `test`. */
export type ReadingSchema = z.ZodObject<{ test: z.ZodLiteral<string> }, z.core.$strict>;

/** Keys of a reading that say how it is known and when it was taken. */
export const toldKeys = ["heard", "state", "temperature", "minutesIn", "pattern"] as const;

/** A test without its result: what to do, not yet the outcome. */
export type TestIn<S extends ReadingSchema, K extends string> = Omit<
  z.infer<S>,
  K | (typeof toldKeys)[number]
>;
/** The result. */
type ResultIn<S extends ReadingSchema, K extends string> = Pick<z.infer<S>, Extract<K, keyof z.infer<S>>>;

/** Fills `out` with the odds of each outcome for one suspect in one sampled vehicle. */
export type OddsAt = (variant: number, sample: number, out: Float64Array) => void;

/** A display by table row and sample: volts, ohms or amps. Infinity stands for an open circuit. */
export type DisplayAt = (row: number, sample: number) => number;

/** What each test's file must define. `T` is the test, `R` its reading, `C` its result. */
interface Facts<T, R, C> {
  /** Minutes on the spot, from the format's table. */
  readonly minutes: number;
  /** The tool it needs; a set-up may need more (`toolsNeeded`). */
  readonly tools: readonly Tool[];
  readonly form: TestForm;
  /** True if a hand reaches into the wheel. */
  readonly touchesWheel?: boolean;
  /** What is wrong with a test on this circuit: unknown points or parts, by key. */
  readonly problems: (compiled: CompiledCircuit, test: T) => Problem[];
  /** Points, parts or connectors that must be accessible. */
  readonly reaches: (test: T, compiled: CompiledCircuit) => string[];
  /** The tests of this kind worth weighing on this circuit. */
  readonly candidates: (compiled: CompiledCircuit) => T[];
  /** Tests worth weighing only while a short is suspected. */
  readonly shortHunt?: (compiled: CompiledCircuit) => T[];
  /** What a vehicle with a hidden fault shows. */
  readonly simulate: (vehicle: TestedVehicle, test: T) => C;
  /** What the technician writes down after a slip; the true result for a test without slips. */
  readonly slip?: (vehicle: TestedVehicle, test: T, shown: C) => C;
  readonly seen: (reading: R) => string | number;
}

interface WordFacts<T, R, C> extends Facts<T, R, C> {
  readonly outcomes: readonly string[];
  readonly odds: (compiled: CompiledCircuit, test: T, heard: boolean) => OddsAt;
  /** Probability of a word after a slip; the same for every word if absent. */
  readonly blind?: (seen: string) => number;
  readonly seen: (reading: R) => string;
  /** A second thing the same reading tells: its odds by suspect, and if any value were possible. */
  readonly also?: (
    compiled: CompiledCircuit,
    reading: R,
  ) => { readonly odds: (variant: number) => number; readonly blind: number } | null;
  /**
   * The odds of many cells at once, straight from the table, for a test of which hundreds are weighed. Adds each
   * cell's weight times its odds to `joint`, indexed by outcome times `repairs` plus repair.
   */
  readonly addOdds?: (
    compiled: CompiledCircuit,
    test: T,
    cells: RowCells,
    joint: Float64Array,
    repairs: number,
  ) => void;
}

interface NumberFacts<T, R, C> extends Facts<T, R, C> {
  /** The reading's key for the displayed number. */
  readonly figure: string;
  readonly value: (compiled: CompiledCircuit, test: T) => DisplayAt;
  /** The displays of many cells at once, straight from the table. */
  readonly fill?: (compiled: CompiledCircuit, test: T) => (cells: RowCells, out: Float64Array) => void;
  /** Standard deviation of a reading around a predicted display, for instrument and model together. */
  readonly sigma: (value: number) => number;
  /** How far a display may be out besides, where nobody knows the values of the circuit's parts. */
  readonly guessedSigma: (value: number) => number;
  /** Width of a display, on the test's scale, that counts as one outcome. */
  readonly window: number;
  /** Probability of a display if any value were possible: a slip, or a cause outside the model. */
  readonly blind: (seen: number) => number;
  /** Distance between displays on the test's scale: volts by difference, ohms by ratio. */
  readonly scale: (value: number) => number;
  /** The display; Infinity for an open circuit. */
  readonly seen: (reading: R) => number;
}

/** Functions that take any test and refuse one of another kind, so that tests of all kinds can stand in one list. */
type Opened<F> = Omit<F, "candidates" | "shortHunt" | "simulate" | "slip">;

interface Registered<S extends ReadingSchema, K extends string> {
  readonly name: z.infer<S>["test"];
  readonly schema: S;
  /** Keys of a reading that hold its result. */
  readonly resultKeys: readonly K[];
  readonly candidates: (compiled: CompiledCircuit) => TestIn<S, K>[];
  readonly shortHunt: (compiled: CompiledCircuit) => TestIn<S, K>[];
  /**
   * What is written down of the vehicle's answer, not yet parsed.
   * @param slipShare share of tests with a slip, 0 to 1
   */
  readonly simulate: (vehicle: TestedVehicle, test: AnyTest, slipShare: number) => AnyReading;
  /** The reading a result would make, not yet parsed. */
  readonly withResult: (test: AnyTest, result: string | number) => AnyReading;
}

/** A test whose result is one of a few words. */
export interface WordObservation<S extends ReadingSchema = ReadingSchema, K extends string = string>
  extends Opened<WordFacts<AnyTest, AnyReading, unknown>>,
    Registered<S, K> {
  readonly gives: "word";
}

/** A test whose result is a number on a display. */
export interface NumberObservation<S extends ReadingSchema = ReadingSchema, K extends string = string>
  extends Opened<NumberFacts<AnyTest, AnyReading, unknown>>,
    Registered<S, K> {
  readonly gives: "number";
}

/**
 * How tests and readings are recognised as a schema's own. Readings were checked when they came in, so the name is
 * enough.
 */
function narrow<S extends ReadingSchema, K extends string>(schema: S) {
  const [name] = schema.shape.test.values;
  const refuse = (test: AnyTest): never => {
    throw new RangeError(`asked of a "${test.test}", not a "${name}"`);
  };
  const isTest = (test: AnyTest): test is AnyTest & TestIn<S, K> => test.test === name;
  const isReading = (reading: AnyReading): reading is AnyReading & z.infer<S> => reading.test === name;
  return {
    name: name as z.infer<S>["test"],
    test: (test: AnyTest) => (isTest(test) ? test : refuse(test)),
    reading: (reading: AnyReading) => (isReading(reading) ? reading : refuse(reading)),
  };
}

function registered<S extends ReadingSchema, K extends string>(
  schema: S,
  resultKeys: readonly K[],
  facts: Facts<TestIn<S, K>, z.infer<S>, ResultIn<S, K>>,
) {
  const own = narrow<S, K>(schema);
  return {
    name: own.name,
    schema,
    resultKeys,
    shortHunt: facts.shortHunt ?? (() => []),
    problems: (compiled: CompiledCircuit, test: AnyTest) => facts.problems(compiled, own.test(test)),
    reaches: (test: AnyTest, compiled: CompiledCircuit) => facts.reaches(own.test(test), compiled),
    simulate: (vehicle: TestedVehicle, test: AnyTest, slipShare: number): AnyReading => {
      const shown = facts.simulate(vehicle, own.test(test));
      const slips = vehicle.chance.uniform() < slipShare;
      return { ...test, ...(slips && facts.slip ? facts.slip(vehicle, own.test(test), shown) : shown) };
    },
  };
}

/**
 * A test with a word as result, in the form of the list of all tests.
 * @param resultKeys keys of its reading that hold the result
 */
export function wordTest<S extends ReadingSchema, const K extends string>(
  schema: S,
  resultKeys: readonly K[],
  facts: NoInfer<WordFacts<TestIn<S, K>, z.infer<S>, ResultIn<S, K>>>,
): WordObservation<S, K> {
  const own = narrow<S, K>(schema);
  const { also, addOdds, ...plain } = facts;
  return {
    ...plain,
    ...registered(schema, resultKeys, facts),
    gives: "word",
    odds: (compiled, test, heard) => facts.odds(compiled, own.test(test), heard),
    seen: (reading) => facts.seen(own.reading(reading)),
    withResult: (test, seen) => ({ ...test, seen }),
    ...(also ? { also: (compiled, reading) => also(compiled, own.reading(reading)) } : {}),
    ...(addOdds
      ? {
          addOdds: (compiled, test, cells, joint, repairs) =>
            addOdds(compiled, own.test(test), cells, joint, repairs),
        }
      : {}),
  };
}

/** A test with a number as result, in the form of the list of all tests. */
export function numberTest<S extends ReadingSchema, const K extends string>(
  schema: S,
  facts: NumberFacts<TestIn<S, K>, z.infer<S>, ResultIn<S, K>> & { readonly figure: K },
): NumberObservation<S, K> {
  const own = narrow<S, K>(schema);
  const { fill, ...plain } = facts;
  const { figure } = facts;
  return {
    ...plain,
    ...registered(schema, [figure], facts),
    gives: "number",
    value: (compiled, test) => facts.value(compiled, own.test(test)),
    seen: (reading) => facts.seen(own.reading(reading)),
    withResult: (test, value) => ({ ...test, [figure]: Number(value) < mostFigure ? value : null }),
    ...(fill ? { fill: (compiled, test) => fill(compiled, own.test(test)) } : {}),
  };
}

/** A display of at least this many ohms is written down as OL (open). */
const mostFigure = 1e7;

/** Odds of a suspect from the odds of its table rows, weighted by how often each occurs. */
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
