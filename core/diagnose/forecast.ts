import type { CompiledCircuit } from "../predict/compiledCircuit";
import { type Look, type LookOf, lightSeen } from "../predict/reading";
import type { RowCells } from "../predict/setupTable";
import type { NumberTest, OddsAt, WordTest } from "../predict/testModel";
import { testModels } from "../predict/tests/index";
import type { Active, Cells } from "./activeSuspects";
import { entropyAfter } from "./entropy";

/** One way a look can turn out. */
export interface ForecastOutcome {
  /** The word seen, or the display's range as text: `11.8…12.4`, `no end`. */
  readonly seen: string;
  /** A number in the range, for a display; null for a word. */
  readonly value: number | null;
  readonly p: number;
  /** Belief by repair if it turns out so, in the order of `Forecast.repairs`. */
  readonly repairs: readonly number[];
}

/** What a look is expected to tell. */
export interface Forecast {
  readonly look: Look;
  /** Expected information about the repair. */
  readonly bits: number;
  readonly minutes: number;
  /** Of these, the way to places not yet open, which is paid once. */
  readonly accessMinutes: number;
  readonly repairs: readonly string[];
  /** Entropy of the repair as it stands, in bits. */
  readonly entropy: number;
  readonly outcomes: readonly ForecastOutcome[];
}

/** Joint weights of outcome and repair, outcome by outcome. */
function forecastFrom(
  joint: readonly Float64Array[],
  labelOf: (outcome: number) => { readonly seen: string; readonly value: number | null } | null,
  active: Active,
): Told {
  const sums = joint.map(sumOf);
  const total = sumOf(sums);
  const outcomes = (): ForecastOutcome[] =>
    joint.flatMap((row, i) => {
      const sum = sums[i] as number;
      const label = sum / total < 0.004 ? null : labelOf(i);
      if (!label) return [];
      return [{ ...label, p: sum / total, repairs: Array.from(row, (weight) => weight / sum) }];
    });
  return { bits: Math.max(0, active.entropy - entropyAfter(joint)), outcomes };
}

function sumOf(values: readonly number[] | Float64Array): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i] as number;
  return sum;
}

/** The same for a test light, cell by cell straight from its table: there are hundreds of them to weigh. */
function forecastLight(compiled: CompiledCircuit, active: Active, cells: Cells, look: LookOf<"light">): Told {
  const repairs = active.repairs.length;
  const joint = new Float64Array(lightSeen.length * repairs);
  const node = (point: string): number => compiled.netlist.nodeOf.get(point) ?? -1;
  compiled.table(look).addLight(cells.rows, node(look.probe), node(look.clip), joint, repairs);
  const rows = lightSeen.map((_, outcome) => joint.subarray(outcome * repairs, (outcome + 1) * repairs));
  for (const row of rows) row[0] = (row[0] as number) + active.unknown / lightSeen.length;
  return forecastFrom(rows, (i) => ({ seen: lightSeen[i] ?? "", value: null }), active);
}

function forecastWord(active: Active, cells: Cells, outcomes: readonly string[], oddsAt: OddsAt): Told {
  const count = outcomes.length;
  const joint = outcomes.map(() => new Float64Array(active.repairs.length));
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
  for (const row of joint) row[0] = (row[0] as number) + active.unknown / count;
  return forecastFrom(joint, (i) => ({ seen: outcomes[i] ?? "", value: null }), active);
}

/** What a look would tell; the outcomes are spelled out only for those that rank. */
export interface Told {
  readonly bits: number;
  readonly outcomes: () => ForecastOutcome[];
}

/** Displays are weighed in bins on the test's own scale; bins that touch are one outcome. */
const mostBins = 160;

/** Displays of every cell, in room that is used again. */
interface Shown {
  readonly values: Float64Array;
  readonly scaled: Float64Array;
}

const shownRoom = (size: number): Shown => ({
  values: new Float64Array(size),
  scaled: new Float64Array(size),
});
let room = shownRoom(4096);

function forecastNumber(
  active: Active,
  cells: RowCells,
  model: NumberTest<"volts"> | NumberTest<"ohms">,
  value: (row: number, draw: number) => number,
): Told {
  const shown = shownDisplays(cells, model, value);
  const count = cells.weight.length;
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < count; i++) {
    const at = shown.scaled[i] as number;
    if (at < low) low = at;
    if (at > high) high = at;
  }
  const width = Math.max(model.window, (high - low) / mostBins);
  // Everything in one outcome tells nothing.
  if (high - low < width) return { bits: 0, outcomes: () => [] };
  const bins: (Bin | undefined)[] = [];
  for (let i = 0; i < count; i++) {
    const at = Math.floor(((shown.scaled[i] as number) - low) / width);
    const display = shown.values[i] as number;
    let bin = bins[at];
    if (!bin) {
      bin = { row: new Float64Array(active.repairs.length), low: display, high: display };
      bins[at] = bin;
    }
    const repair = cells.repair[i] as number;
    bin.row[repair] = (bin.row[repair] as number) + (cells.weight[i] as number);
    if (display < bin.low) bin.low = display;
    if (display > bin.high) bin.high = display;
  }
  const merged = mergeTouching(bins);
  for (const { row } of merged) row[0] = (row[0] as number) + active.unknown / merged.length;
  const labels = merged.map((bin) => ({
    low: bin.low,
    high: bin.high,
    value: Number.isFinite(bin.high) ? (bin.low + bin.high) / 2 : null,
  }));
  return forecastFrom(
    merged.map(({ row }) => row),
    (i) => {
      const label = labels[i];
      return label ? { seen: rangeText(label.low, label.high), value: label.value } : null;
    },
    active,
  );
}

/** What the display would show in every cell. */
function shownDisplays(
  cells: RowCells,
  model: NumberTest<"volts"> | NumberTest<"ohms">,
  value: (row: number, draw: number) => number,
): Shown {
  const count = cells.weight.length;
  if (room.values.length < count) room = shownRoom(2 * count);
  for (let i = 0; i < count; i++) {
    const display = value(cells.row[i] as number, cells.draw[i] as number);
    room.values[i] = display;
    room.scaled[i] = model.scale(display);
  }
  return room;
}

type Bin = { row: Float64Array; low: number; high: number };

/** Neighbouring bins become one outcome, at most three wide, so that a long smear still tells. */
function mergeTouching(bins: readonly (Bin | undefined)[]): Bin[] {
  const merged: Bin[] = [];
  let run = 0;
  for (let i = 0; i < bins.length; i++) {
    const bin = bins[i];
    const last = merged.at(-1);
    if (!bin) continue;
    if (last && bins[i - 1] && run < 3) {
      for (let repair = 0; repair < bin.row.length; repair++)
        last.row[repair] = (last.row[repair] as number) + (bin.row[repair] as number);
      last.low = Math.min(last.low, bin.low);
      last.high = Math.max(last.high, bin.high);
      run += 1;
    } else {
      merged.push(bin);
      run = 1;
    }
  }
  return merged;
}

const sane = (value: number): string => {
  const size = Math.abs(value);
  const digits = size < 10 ? 2 : size < 100 ? 1 : 0;
  const text = value.toFixed(digits);
  return Number(text) === 0 ? "0" : text;
};

function rangeText(low: number, high: number): string {
  if (low > 2e6) return "no end";
  const [from, to] = [sane(low), sane(high)];
  return from === to ? from : `${from}…${high > 2e6 ? "no end" : to}`;
}

/** What one look would tell, from the belief as it stands. */
export function forecastLook(compiled: CompiledCircuit, active: Active, cells: Cells, look: Look): Told {
  if (look.test === "light") return forecastLight(compiled, active, cells, look);
  const model = testModels[look.test];
  if (model.gives === "word") {
    const word = model as unknown as WordTest<"light">;
    return forecastWord(active, cells, word.outcomes, word.odds(compiled, look as never, false));
  }
  const number = model as NumberTest<"volts">;
  return forecastNumber(active, cells.rows, number, number.value(compiled, look as never));
}
