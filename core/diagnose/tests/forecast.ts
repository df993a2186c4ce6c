import type { Repair } from "../../fault/repair";
import { observationOf } from "../../predict/observations/index";
import type { DisplayAt, NumberObservation, WordObservation } from "../../predict/observations/observation";
import type { Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import type { RowCells } from "../../predict/tables/setupTable";
import type { Active, Cells } from "../belief/activeSuspects";
import { entropyAfter } from "../belief/entropy";

/** The displays of one outcome. */
export interface Range {
  readonly low: number;
  readonly high: number;
}

/** One possible outcome of a test. */
export interface ForecastOutcome {
  /** The word seen, or the display's range as text: `11.8…12.4`, `no end` for OL (open). */
  readonly seen: string;
  /** A number in the range, for a display; null for a word. */
  readonly value: number | null;
  /** The display's range; Infinity for OL (open). Null for a word. */
  readonly range: Range | null;
  readonly p: number;
  /** Belief by repair after this outcome, in the order of `Forecast.repairs`. */
  readonly repairs: readonly number[];
}

/** What a test is expected to show. */
export interface Forecast {
  readonly look: Test;
  /** Expected information about the repair. */
  readonly bits: number;
  readonly minutes: number;
  /** Minutes among these for reaching locations not yet open, which are spent once. */
  readonly accessMinutes: number;
  readonly repairs: readonly Repair[];
  /** Entropy of the repair at present, in bits. */
  readonly entropy: number;
  readonly outcomes: readonly ForecastOutcome[];
}

/** The name of an outcome; its text is only made when it is shown. */
interface OutcomeLabel {
  readonly seen: () => string;
  readonly value: number | null;
  readonly range: Range | null;
}

/** Joint weights of outcome and repair, outcome by outcome. */
function forecastFrom(
  joint: readonly Float64Array[],
  labelOf: (outcome: number) => OutcomeLabel,
  active: Active,
): Told {
  const sums = joint.map(sumOf);
  const total = sumOf(sums);
  const outcomes = (): ForecastOutcome[] => {
    const made: ForecastOutcome[] = [];
    for (let i = 0; i < joint.length; i++) {
      const sum = sums[i] as number;
      if (sum / total < 0.004) continue;
      const row = joint[i] as Float64Array;
      const repairs: number[] = [];
      for (let repair = 0; repair < row.length; repair++) repairs.push((row[repair] as number) / sum);
      const { seen, value, range } = labelOf(i);
      made.push({
        get seen() {
          return seen();
        },
        value,
        range,
        p: sum / total,
        repairs,
      });
    }
    return made;
  };
  return { bits: Math.max(0, active.entropy - entropyAfter(joint)), outcomes };
}

function sumOf(values: readonly number[] | Float64Array): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i] as number;
  return sum;
}

/** Read straight from the table, for the hundreds of tests to be weighed. */
function addTabled(active: Active, outcomes: readonly string[], add: (joint: Float64Array) => void): Told {
  const repairs = active.repairs.length;
  const joint = new Float64Array(outcomes.length * repairs);
  add(joint);
  return forecastWords(
    active,
    outcomes,
    outcomes.map((_, outcome) => joint.subarray(outcome * repairs, (outcome + 1) * repairs)),
  );
}

function forecastWords(active: Active, outcomes: readonly string[], joint: readonly Float64Array[]): Told {
  for (const row of joint) row[0] = (row[0] as number) + active.unknown / outcomes.length;
  return forecastFrom(joint, (i) => ({ seen: () => outcomes[i] ?? "", value: null, range: null }), active);
}

function forecastWord(
  compiled: CompiledCircuit,
  active: Active,
  cells: Cells,
  model: WordObservation,
  test: Test,
): Told {
  const { outcomes, addOdds } = model;
  const repairs = active.repairs.length;
  if (addOdds)
    return addTabled(active, outcomes, (joint) => addOdds(compiled, test, cells.rows, joint, repairs));
  const oddsAt = model.odds(compiled, test, false);
  const count = outcomes.length;
  const joint = outcomes.map(() => new Float64Array(repairs));
  const own = new Float64Array(count);
  for (let cell = 0; cell < cells.weight.length; cell++) {
    oddsAt(cells.variant[cell] as number, cells.draw[cell] as number, own);
    const repair = cells.repair[cell] as number;
    const weight = cells.weight[cell] as number;
    for (let outcome = 0; outcome < count; outcome++) {
      const row = joint[outcome] as Float64Array;
      row[repair] = (row[repair] as number) + weight * (own[outcome] as number);
    }
  }
  return forecastWords(active, outcomes, joint);
}

/** What a test would show; outcomes are only given their text for tests that rank. */
export interface Told {
  readonly bits: number;
  readonly outcomes: () => ForecastOutcome[];
}

/** Displays are weighed in bins on the test's own scale; neighbouring bins are one outcome, up to a limit. */
const mostBins = 160;
const widestOutcome = 3;

/** Buffers that are used again: displays of every cell, and weights by bin and repair. */
let shown = new Float64Array(4096);
let scaled = new Float64Array(4096);
let binned = new Float64Array(0);

interface GrowingRange {
  low: number;
  high: number;
}

function forecastNumber(active: Active, cells: RowCells, model: NumberObservation, fill: Fill): Told {
  const count = cells.weight.length;
  if (shown.length < count) [shown, scaled] = [new Float64Array(2 * count), new Float64Array(2 * count)];
  fill(cells, shown);
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < count; i++) {
    const at = model.scale(shown[i] as number);
    scaled[i] = at;
    if (at < low) low = at;
    if (at > high) high = at;
  }
  const width = Math.max(model.window, (high - low) / mostBins);
  const size = active.repairs.length;
  const room = (mostBins + 2) * size;
  if (binned.length < room) binned = new Float64Array(room);
  const ranges: (GrowingRange | undefined)[] = [];
  for (let i = 0; i < count; i++) {
    const bin = Math.floor(((scaled[i] as number) - low) / width);
    const display = shown[i] as number;
    const range = ranges[bin];
    if (!range) {
      ranges[bin] = { low: display, high: display };
      binned.fill(0, bin * size, (bin + 1) * size);
    } else if (display < range.low) range.low = display;
    else if (display > range.high) range.high = display;
    const at = bin * size + (cells.repair[i] as number);
    binned[at] = (binned[at] as number) + (cells.weight[i] as number);
  }
  const merged = mergeTouching(ranges, size);
  for (const { row } of merged) row[0] = (row[0] as number) + active.unknown / merged.length;
  let texts: string[] | null = null;
  return forecastFrom(
    merged.map(({ row }) => row),
    (i) => {
      const range = merged[i] as Range;
      const { low: from, high: to } = range;
      const seen = (): string => {
        texts ??= rangeTexts(merged);
        return texts[i] ?? "";
      };
      return { seen, value: Number.isFinite(to) ? (from + to) / 2 : null, range: { low: from, high: to } };
    },
    active,
  );
}

/** Fills in the display of every cell. */
type Fill = (cells: RowCells, out: Float64Array) => void;

const cellByCell =
  (value: DisplayAt): Fill =>
  (cells, out) => {
    for (let i = 0; i < cells.weight.length; i++)
      out[i] = value(cells.row[i] as number, cells.draw[i] as number);
  };

/** Neighbouring bins become one outcome, at most three wide, so that a broad distribution still carries information. */
function mergeTouching(
  ranges: readonly (Range | undefined)[],
  size: number,
): (Range & { row: Float64Array })[] {
  const merged: (GrowingRange & { row: Float64Array })[] = [];
  let wide = 0;
  for (let bin = 0; bin < ranges.length; bin++) {
    const range = ranges[bin];
    const last = merged.at(-1);
    if (!range) continue;
    if (last && ranges[bin - 1] && wide < widestOutcome) {
      for (let repair = 0; repair < size; repair++)
        last.row[repair] = (last.row[repair] as number) + (binned[bin * size + repair] as number);
      last.low = Math.min(last.low, range.low);
      last.high = Math.max(last.high, range.high);
      wide += 1;
    } else {
      merged.push({ ...range, row: binned.slice(bin * size, (bin + 1) * size) });
      wide = 1;
    }
  }
  return merged;
}

const sane = (value: number, finer: number): string => {
  const size = Math.abs(value);
  const digits = (size < 10 ? 2 : size < 100 ? 1 : 0) + finer;
  const text = value.toFixed(digits);
  return Number(text) === 0 ? "0" : text;
};

export function rangeText({ low, high }: Range, finer = 0): string {
  if (low > 2e6) return "no end";
  const [from, to] = [sane(low, finer), sane(high, finer)];
  return from === to ? from : `${from}…${high > 2e6 ? "no end" : to}`;
}

/** Ranges as text; two that would touch get one more digit. */
function rangeTexts(ranges: readonly Range[]): string[] {
  const touches = (one: Range | undefined, other: Range | undefined): boolean =>
    one !== undefined && other !== undefined && sane(one.high, 0) === sane(other.low, 0) && other.low < 2e6;
  return ranges.map((range, i) =>
    rangeText(range, touches(ranges[i - 1], range) || touches(range, ranges[i + 1]) ? 1 : 0),
  );
}

/** What one test would show, given the present belief. */
export function forecastTest(compiled: CompiledCircuit, active: Active, cells: Cells, test: Test): Told {
  const model = observationOf(test.test);
  if (model.gives === "word") return forecastWord(compiled, active, cells, model, test);
  const fill = model.fill?.(compiled, test) ?? cellByCell(model.value(compiled, test));
  return forecastNumber(active, cells.rows, model, fill);
}
