import { LRUCache } from "lru-cache";
import { comesAndGoes, momentOf } from "../../predict/moment";
import { tellsPattern } from "../../predict/observations/history";
import { observationOf } from "../../predict/observations/index";
import type {
  DisplayAt,
  NumberObservation,
  OddsAt,
  WordObservation,
} from "../../predict/observations/observation";
import { type Reading, readingKey, testOf } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { perCircuit } from "../../predict/tables/perCircuit";

/** How well every suspect, in every sampled vehicle, predicted one reading. */
export interface ReadingScore {
  /** Probability of the reading, by variant times samples plus sample. */
  readonly odds: Float64Array;
  /** Probability of the reading if it was a mistake, which can give any value. */
  readonly blind: number;
  /** Probability of the reading under a cause outside the list. */
  readonly unlisted: number;
}

/** What a reading shows by suspect, before the cause outside the list is weighed. */
type Listed = Omit<ReadingScore, "unlisted">;

/**
 * Share of a car that a cause outside the list leaves as the listed ones do (judgement, no source). Most of the car is
 * sound whatever failed, so such a cause predicts a reading as the whole catalogue does, or else anything.
 */
const leftAlone = 0.7;

function withUnlisted({ variants, samples }: CompiledCircuit, { odds, blind }: Listed): ReadingScore {
  const count = samples.length;
  let sum = 0;
  let whole = 0;
  variants.forEach(({ prior }, variant) => {
    let own = 0;
    for (let sample = 0; sample < count; sample++) own += odds[variant * count + sample] as number;
    sum += (prior * own) / count;
    whole += prior;
  });
  return { odds, blind, unlisted: leftAlone * (sum / whole) + (1 - leftAlone) * blind };
}

const widest = 1e-12;

function wordOdds(compiled: CompiledCircuit, oddsAt: OddsAt, seen: number, count: number): Float64Array {
  const samples = compiled.samples.length;
  const odds = new Float64Array(compiled.variants.length * samples);
  const own = new Float64Array(count);
  for (let variant = 0; variant < compiled.variants.length; variant++) {
    for (let sample = 0; sample < samples; sample++) {
      oddsAt(variant, sample, own);
      odds[variant * samples + sample] = Math.max(widest, own[seen] ?? 0);
    }
  }
  return odds;
}

/** Share of a normal distribution that falls in one window of the display. */
function windowOdds(model: NumberObservation, predicted: number, seen: number, isGuessed: boolean): number {
  const sigma = Math.hypot(model.sigma(predicted), isGuessed ? model.guessedSigma(predicted) : 0);
  const gap = (model.scale(seen) - model.scale(predicted)) / sigma;
  const density = Math.exp((-gap * gap) / 2) / (sigma * Math.sqrt(2 * Math.PI));
  return Math.min(1, density * model.window);
}

function numberScore(
  compiled: CompiledCircuit,
  model: NumberObservation,
  value: DisplayAt,
  seen: number,
): Listed {
  const samples = compiled.samples.length;
  const rowOdds = new Float64Array(compiled.rows.length * samples);
  for (let row = 0; row < compiled.rows.length; row++) {
    for (let sample = 0; sample < samples; sample++) {
      rowOdds[row * samples + sample] = windowOdds(model, value(row, sample), seen, compiled.isGuessed);
    }
  }
  const odds = new Float64Array(compiled.variants.length * samples);
  compiled.variants.forEach((variant, index) => {
    for (let sample = 0; sample < samples; sample++) {
      let own = widest;
      for (const { row, share } of variant.rows) own += share * (rowOdds[row * samples + sample] as number);
      odds[index * samples + sample] = own;
    }
  });
  return { odds, blind: model.blind(seen) };
}

/**
 * Scores a job's readings against every suspect, each at its moment. A pattern counts once, however many speeds it is
 * told of, and not at all beside the customer's answer to the same question.
 */
export function scoreReadings(compiled: CompiledCircuit, readings: readonly Reading[]): ReadingScore[] {
  const varies = comesAndGoes(readings);
  const counted = new Set<string>();
  return readings.map((reading) => {
    const moment = momentOf(reading, varies);
    const score = scoreReading(compiled.at(moment), withNewPattern(reading, readings, counted));
    // A reading taken while nothing is wrong says nothing about what is wrong, the unknown included.
    return moment === "working" ? { ...score, blind: score.unlisted, unlisted: meanOf(score.odds) } : score;
  });
}

/** The reading without a pattern that is already counted. */
function withNewPattern(reading: Reading, readings: readonly Reading[], counted: Set<string>): Reading {
  if (reading.test !== "airflow" || !reading.pattern) return reading;
  const { pattern, ...plain } = reading;
  const known = counted.has(pattern) || readings.some((other) => tellsPattern(other, pattern));
  counted.add(pattern);
  return known ? plain : reading;
}

const meanOf = (odds: Float64Array): number => odds.reduce((sum, own) => sum + own, 0) / odds.length;

/** Scores one reading against every suspect; the same reading is scored once for each circuit. */
export function scoreReading(compiled: CompiledCircuit, reading: Reading): ReadingScore {
  return scores(compiled).of(reading);
}

/** Scores of the readings used on a circuit, by content; the least recently used go first. */
class Scores {
  private readonly kept = new LRUCache<string, ReadingScore>({ max: mostScores });

  constructor(private readonly compiled: CompiledCircuit) {}

  of(reading: Reading): ReadingScore {
    const key = readingKey(reading);
    const score = this.kept.get(key) ?? withUnlisted(this.compiled, listedScore(this.compiled, reading));
    this.kept.set(key, score);
    return score;
  }
}

const mostScores = 1500;
const scores = perCircuit((compiled) => new Scores(compiled));

/** Includes the second thing a reading tells, if it tells one. */
function withSecond(
  compiled: CompiledCircuit,
  model: WordObservation,
  reading: Reading,
  score: Listed,
): Listed {
  const second = model.also?.(compiled, reading) ?? null;
  if (!second) return score;
  const samples = compiled.samples.length;
  const odds = score.odds.map((own, cell) => own * second.odds(Math.floor(cell / samples)));
  return { odds, blind: score.blind * second.blind };
}

function listedScore(compiled: CompiledCircuit, reading: Reading): Listed {
  const test = testOf(reading);
  const model = observationOf(reading.test);
  if (model.gives === "number")
    return numberScore(compiled, model, model.value(compiled, test), model.seen(reading));
  const oddsAt = model.odds(compiled, test, reading.heard ?? false);
  const seen = model.outcomes.indexOf(model.seen(reading));
  const count = model.outcomes.length;
  const blind = model.blind?.(model.seen(reading)) ?? 1 / count;
  return withSecond(compiled, model, reading, { odds: wordOdds(compiled, oddsAt, seen, count), blind });
}
