import { testModels } from "../../predict/observations/index";
import type { NumberTest, OddsAt, WordTest } from "../../predict/observations/observation";
import { keyOfReading, lookOf, type Reading, type ReadingOf, resultOf } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";

/** How well every suspect, in every drawn vehicle, predicted one reading. */
export interface ReadingScore {
  /** Probability of what was seen, by variant times draws plus draw. */
  readonly odds: Float64Array;
  /** Probability of what was seen if anything could have been. */
  readonly blind: number;
}

const widest = 1e-12;

function wordScore(compiled: CompiledCircuit, oddsAt: OddsAt, seen: number, count: number): ReadingScore {
  const draws = compiled.draws.length;
  const odds = new Float64Array(compiled.variants.length * draws);
  const own = new Float64Array(count);
  for (let variant = 0; variant < compiled.variants.length; variant++) {
    for (let draw = 0; draw < draws; draw++) {
      oddsAt(variant, draw, own);
      odds[variant * draws + draw] = Math.max(widest, own[seen] ?? 0);
    }
  }
  return { odds, blind: 1 / count };
}

/** Share of a normal spread that falls in one window of the display. */
export function windowOdds(
  model: NumberTest<"volts"> | NumberTest<"ohms">,
  predicted: number,
  seen: number,
): number {
  const sigma = model.sigma(predicted);
  const gap = (model.scale(seen) - model.scale(predicted)) / sigma;
  const density = Math.exp((-gap * gap) / 2) / (sigma * Math.sqrt(2 * Math.PI));
  return Math.min(1, density * model.window);
}

function numberScore(
  compiled: CompiledCircuit,
  model: NumberTest<"volts"> | NumberTest<"ohms">,
  value: (row: number, draw: number) => number,
  seen: number,
): ReadingScore {
  const draws = compiled.draws.length;
  const rowOdds = new Float64Array(compiled.rows.length * draws);
  for (let row = 0; row < compiled.rows.length; row++) {
    for (let draw = 0; draw < draws; draw++) {
      rowOdds[row * draws + draw] = windowOdds(model, value(row, draw), seen);
    }
  }
  const odds = new Float64Array(compiled.variants.length * draws);
  compiled.variants.forEach((variant, index) => {
    for (let draw = 0; draw < draws; draw++) {
      let own = widest;
      for (const { row, share } of variant.rows) own += share * (rowOdds[row * draws + draw] as number);
      odds[index * draws + draw] = own;
    }
  });
  return { odds, blind: model.blind(seen) };
}

/** Scores one reading against every suspect; the same reading is scored once for a circuit. */
export function scoreReading(compiled: CompiledCircuit, reading: Reading): ReadingScore {
  const second = reading.test === "listen" ? String(reading.followsSpeed) : "";
  const key = `score ${reading.heard === true} ${resultOf(reading)} ${second} ${keyOfReading(reading)}`;
  return compiled.remember(key, () => freshScore(compiled, reading));
}

/** Folds in the second thing a reading tells, where it tells one. */
function withSecond(
  compiled: CompiledCircuit,
  model: WordTest<"listen">,
  reading: ReadingOf<"listen">,
  score: ReadingScore,
): ReadingScore {
  const second = model.also?.(compiled, reading) ?? null;
  if (!second) return score;
  const draws = compiled.draws.length;
  const odds = score.odds.map((own, cell) => own * second.odds(Math.floor(cell / draws)));
  return { odds, blind: score.blind * second.blind };
}

function freshScore(compiled: CompiledCircuit, reading: Reading): ReadingScore {
  const look = lookOf(reading);
  const model = testModels[reading.test];
  if (model.gives === "word") {
    const oddsOf = model.odds as (compiled: CompiledCircuit, look: unknown, heard: boolean) => OddsAt;
    const seen = model.outcomes.indexOf((model.seen as (reading: unknown) => string)(reading));
    const score = wordScore(
      compiled,
      oddsOf(compiled, look, reading.heard ?? false),
      seen,
      model.outcomes.length,
    );
    return withSecond(
      compiled,
      model as unknown as WordTest<"listen">,
      reading as ReadingOf<"listen">,
      score,
    );
  }
  const displayOf = model.value as (
    compiled: CompiledCircuit,
    look: unknown,
  ) => (row: number, draw: number) => number;
  const seen = (model.seen as (reading: unknown) => number)(reading);
  return numberScore(compiled, model as NumberTest<"volts">, displayOf(compiled, look), seen);
}
