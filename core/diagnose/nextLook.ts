import type { CompiledCircuit } from "../predict/compiledCircuit";
import { type Look, lookKey, lookOf } from "../predict/reading";
import {
  type NumberTest,
  type OddsAt,
  type TestModel,
  type Tool,
  toolsNeeded,
  type WordTest,
} from "../predict/testModel";
import { testModels } from "../predict/tests/index";
import { lookMinutes, openPlaces } from "./access";
import type { Belief } from "./belief";
import { type School, schoolPrefers } from "./school";

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
  readonly repairs: readonly string[];
  /** Entropy of the repair as it stands, in bits. */
  readonly entropy: number;
  readonly outcomes: readonly ForecastOutcome[];
}

/** Suspects too unlikely to steer the next look are left out of the weighing. */
const coverShare = 0.99;
const mostVariants = 70;
/** Drawn vehicles a suspect is weighed in: a few to find the good looks, more to rank those. */
const screeningDraws = 3;
const rankingDraws = 16;

interface Active {
  readonly variants: readonly number[];
  /** Repair of each, as an index into `repairs`. */
  readonly repairOf: readonly number[];
  readonly repairs: readonly string[];
  readonly unknown: number;
  /** Entropy of the repair as it stands, in bits. */
  readonly entropy: number;
}

/** Suspects in the drawn vehicles they are believed in, as one flat list of weights. */
interface Cells {
  readonly variant: Int32Array;
  readonly draw: Int32Array;
  readonly repair: Int32Array;
  readonly weight: Float64Array;
}

function activeSuspects(compiled: CompiledCircuit, belief: Belief): Active {
  const order = [...belief.variants.keys()].sort(
    (a, b) => (belief.variants[b] as number) - (belief.variants[a] as number),
  );
  const variants: number[] = [];
  let covered = belief.unknown;
  for (const variant of order) {
    if (covered >= coverShare || variants.length >= mostVariants) break;
    variants.push(variant);
    covered += belief.variants[variant] as number;
  }
  const repairs: string[] = ["unknown"];
  const index = new Map<string, number>([["unknown", 0]]);
  const repairOf = variants.map((variant) => {
    const repair = compiled.variants[variant]?.repair ?? "unknown";
    const known = index.get(repair);
    if (known !== undefined) return known;
    index.set(repair, repairs.length);
    return repairs.push(repair) - 1;
  });
  const prior = new Array<number>(repairs.length).fill(0);
  prior[0] = belief.unknown;
  variants.forEach((variant, i) => {
    const at = repairOf[i] as number;
    prior[at] = (prior[at] as number) + (belief.variants[variant] as number);
  });
  return {
    variants,
    repairOf,
    repairs,
    unknown: belief.unknown,
    entropy: entropyBits(prior),
  };
}

/** Each suspect in its most believed vehicles, carrying the suspect's whole weight between them. */
function cellsOf(compiled: CompiledCircuit, belief: Belief, active: Active, most: number): Cells {
  const draws = compiled.draws.length;
  const found: { variant: number; draw: number; repair: number; weight: number }[] = [];
  active.variants.forEach((variant, i) => {
    const start = variant * draws;
    const weightAt = (draw: number): number => belief.joint[start + draw] as number;
    const ranked = Array.from({ length: draws }, (_, draw) => draw).sort((a, b) => weightAt(b) - weightAt(a));
    const kept = ranked.slice(0, most).filter((draw) => weightAt(draw) > 1e-9);
    const sum = kept.reduce((total, draw) => total + weightAt(draw), 0);
    const scale = sum > 0 ? (belief.variants[variant] as number) / sum : 0;
    for (const draw of kept)
      found.push({ variant, draw, repair: active.repairOf[i] as number, weight: scale * weightAt(draw) });
  });
  return {
    variant: Int32Array.from(found, ({ variant }) => variant),
    draw: Int32Array.from(found, ({ draw }) => draw),
    repair: Int32Array.from(found, ({ repair }) => repair),
    weight: Float64Array.from(found, ({ weight }) => weight),
  };
}

/** Entropy in bits of weights that need not sum to 1. */
export function entropyBits(weights: readonly number[] | Float64Array): number {
  let sum = 0;
  let logs = 0;
  for (let i = 0; i < weights.length; i++) {
    const weight = weights[i] as number;
    if (weight <= 0) continue;
    sum += weight;
    logs += weight * Math.log2(weight);
  }
  return sum > 0 ? Math.log2(sum) - logs / sum : 0;
}

/** Joint weights of outcome and repair, outcome by outcome. */
function forecastFrom(
  joint: readonly Float64Array[],
  labels: readonly { seen: string; value: number | null }[],
  active: Active,
): Told {
  const sums = joint.map(sumOf);
  const total = sumOf(sums);
  let after = 0;
  for (let i = 0; i < joint.length; i++) {
    const sum = sums[i] as number;
    if (sum > 0) after += (sum / total) * entropyBits(joint[i] as Float64Array);
  }
  const outcomes = (): ForecastOutcome[] =>
    joint.flatMap((row, i) => {
      const sum = sums[i] as number;
      const label = labels[i];
      if (!label || sum / total < 0.004) return [];
      return [{ ...label, p: sum / total, repairs: Array.from(row, (weight) => weight / sum) }];
    });
  return { bits: Math.max(0, active.entropy - after), outcomes };
}

function sumOf(values: readonly number[] | Float64Array): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i] as number;
  return sum;
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
  return forecastFrom(
    joint,
    outcomes.map((seen) => ({ seen, value: null })),
    active,
  );
}

/** What a look would tell; the outcomes are spelled out only for those that rank. */
interface Told {
  readonly bits: number;
  readonly outcomes: () => ForecastOutcome[];
}

/** Displays are weighed in bins on the test's own scale; bins that touch are one outcome. */
const mostBins = 160;

function forecastNumber(
  compiled: CompiledCircuit,
  active: Active,
  cells: Cells,
  model: NumberTest<"volts"> | NumberTest<"ohms">,
  value: (row: number, draw: number) => number,
): Told {
  const shown = shownDisplays(compiled, cells, value);
  const scaled = shown.value.map((display) => model.scale(display));
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (const at of scaled) {
    if (at < low) low = at;
    if (at > high) high = at;
  }
  const width = Math.max(model.window, (high - low) / mostBins);
  const bins: (Bin | undefined)[] = [];
  for (let i = 0; i < scaled.length; i++) {
    const at = Math.floor(((scaled[i] as number) - low) / width);
    const display = shown.value[i] as number;
    const bin = bins[at] ?? { row: new Float64Array(active.repairs.length), low: display, high: display };
    bins[at] = bin;
    const repair = shown.repair[i] as number;
    bin.row[repair] = (bin.row[repair] as number) + (shown.weight[i] as number);
    if (display < bin.low) bin.low = display;
    if (display > bin.high) bin.high = display;
  }
  const merged = mergeTouching(bins);
  for (const { row } of merged) row[0] = (row[0] as number) + active.unknown / merged.length;
  const labels = merged.map((bin) => ({
    seen: rangeText(bin.low, bin.high),
    value: Number.isFinite(bin.high) ? (bin.low + bin.high) / 2 : null,
  }));
  return forecastFrom(
    merged.map(({ row }) => row),
    labels,
    active,
  );
}

/** What the display would show in every cell; a fault that comes and goes gives two displays. */
function shownDisplays(
  compiled: CompiledCircuit,
  cells: Cells,
  value: (row: number, draw: number) => number,
) {
  const values: number[] = [];
  const repair: number[] = [];
  const weight: number[] = [];
  for (let cell = 0; cell < cells.weight.length; cell++) {
    for (const { row, share } of compiled.variants[cells.variant[cell] as number]?.rows ?? []) {
      values.push(value(row, cells.draw[cell] as number));
      repair.push(cells.repair[cell] as number);
      weight.push(share * (cells.weight[cell] as number));
    }
  }
  return { value: values, repair, weight };
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
      bin.row.forEach((weight, repair) => {
        last.row[repair] = (last.row[repair] as number) + weight;
      });
      last.low = Math.min(last.low, bin.low);
      last.high = Math.max(last.high, bin.high);
      run += 1;
    } else {
      merged.push({ row: bin.row.slice(), low: bin.low, high: bin.high });
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

export interface NextOptions {
  readonly tools: readonly Tool[];
  readonly school: School;
  /** How many looks to return. */
  readonly count: number;
}

/** A look and the text that tells it from others. */
interface Candidate {
  readonly look: Look;
  readonly key: string;
}

/** Every look the tools allow on this circuit, whatever has been seen; those that hunt a short if asked. */
export function candidateLooks(
  compiled: CompiledCircuit,
  tools: readonly Tool[],
  shorts = false,
): readonly Candidate[] {
  return compiled.remember(`candidates ${tools.join()} ${shorts}`, () =>
    allLooks(compiled, tools, shorts).map((look) => ({ look, key: lookKey(look) })),
  );
}

function allLooks(compiled: CompiledCircuit, tools: readonly Tool[], shorts: boolean): Look[] {
  return (Object.values(testModels) as TestModel[]).flatMap((model) => {
    const looks = [...model.candidates(compiled), ...(shorts ? (model.shortHunt?.(compiled) ?? []) : [])];
    return (looks as Look[]).filter((look) =>
      toolsNeeded(model.tools, look).every((tool) => tools.includes(tool)),
    );
  });
}

/** Belief in shorts above which the looks that hunt them are weighed. */
const shortsWorth = 0.02;

function shortsBelief(compiled: CompiledCircuit, belief: Belief): number {
  let sum = 0;
  compiled.variants.forEach(({ fault }, variant) => {
    if (fault.names.some(({ mode }) => mode === "to-ground" || mode === "to-feed"))
      sum += belief.variants[variant] as number;
  });
  return sum;
}

const leastBits = 0.003;

/** What one look would tell, from the belief as it stands. */
function forecastLook(compiled: CompiledCircuit, active: Active, cells: Cells, look: Look): Told {
  const model = testModels[look.test];
  if (model.gives === "word") {
    const word = model as unknown as WordTest<"light">;
    return forecastWord(active, cells, word.outcomes, word.odds(compiled, look as never, false));
  }
  const number = model as NumberTest<"volts">;
  return forecastNumber(compiled, active, cells, number, number.value(compiled, look as never));
}

/** Looks that are ranked in full after the first, coarse screening. */
const screened = 40;

/**
 * The looks worth most: expected information about the repair per minute, minutes counting places
 * not yet open. A look already taken is not offered again; ties go to the look that unplugs least.
 */
export function nextLooks(compiled: CompiledCircuit, belief: Belief, options: NextOptions): Forecast[] {
  const active = activeSuspects(compiled, belief);
  const open = openPlaces(compiled, belief.readings);
  const taken = new Set(belief.readings.map((reading) => lookKey(lookOf(reading))));
  const coarse = cellsOf(compiled, belief, active, screeningDraws);
  const fine = cellsOf(compiled, belief, active, rankingDraws);
  const prefers = (look: Look): boolean => schoolPrefers(compiled, options.school, look, belief.readings);
  const shorts = shortsBelief(compiled, belief) > shortsWorth;
  const candidates = candidateLooks(compiled, options.tools, shorts)
    .filter(({ key }) => !taken.has(key))
    .map(({ look }) => ({
      look,
      bits: forecastLook(compiled, active, coarse, look).bits,
      minutes: lookMinutes(compiled, look, open),
    }))
    .filter(({ bits }) => bits > leastBits)
    .sort(byWorth);
  const kept = [
    ...candidates.filter(({ look }) => prefers(look)).slice(0, 5),
    ...candidates.slice(0, screened),
  ];
  const ranked = [...new Set(kept)]
    .map(({ look, minutes }) => ({
      look,
      minutes,
      ...forecastLook(compiled, active, fine, look),
      repairs: active.repairs,
      entropy: active.entropy,
    }))
    .filter(({ bits }) => bits > leastBits)
    .sort(byWorth);
  const first = ranked.find(({ look, bits }) => bits > preferredBits && prefers(look));
  const ordered = first ? [first, ...ranked.filter((forecast) => forecast !== first)] : ranked;
  return ordered.slice(0, options.count).map((forecast) => ({ ...forecast, outcomes: forecast.outcomes() }));
}

/** A school takes its favourite look first only while that tells something. */
const preferredBits = 0.03;

const byWorth = (
  a: { look: Look; bits: number; minutes: number },
  b: { look: Look; bits: number; minutes: number },
): number => worth(b) - worth(a) || hands(a.look) - hands(b.look);

/**
 * Bits a minute, every look charged minutes of attention besides: without them many near-empty looks at
 * an open place go before the one that decides, and the whole takes longer (measured on the fleet).
 */
const worth = ({ bits, minutes }: { bits: number; minutes: number }): number =>
  bits / (minutes + attentionMinutes);
const attentionMinutes = 8;
const hands = (look: Look): number => (look.unplugged?.length ?? 0) + (look.bridged?.length ?? 0);
