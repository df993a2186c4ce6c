import { observationOf } from "../observations/index";
import type { DisplayAt, NumberObservation, OddsAt } from "../observations/observation";
import type { Test } from "../reading";
import type { CompiledCircuit } from "./compiledCircuit";

/** What every suspect would show at one test in the nominal vehicle, computed on first use. */
export type NominalColumn = WordColumn | NumberColumn;

/** Odds of each word by suspect. */
export class WordColumn {
  readonly gives = "word";
  /** Indexed by suspect times `outcomes` plus outcome; NaN until `at` was called. */
  readonly odds: Float32Array;
  private readonly own: Float64Array;

  constructor(
    variants: number,
    readonly outcomes: number,
    private readonly oddsAt: OddsAt,
  ) {
    this.odds = new Float32Array(variants * outcomes).fill(Number.NaN);
    this.own = new Float64Array(outcomes);
  }

  /** Index in `odds` of a suspect's first outcome. */
  at(variant: number): number {
    const place = variant * this.outcomes;
    if (Number.isNaN(this.odds[place])) {
      this.oddsAt(variant, 0, this.own);
      this.odds.set(this.own, place);
    }
    return place;
  }
}

/** Number of bins on either side of zero on a test's scale; values beyond count in the last. */
const mostBins = 400;

/** Marks a row that was not used yet. */
const unasked = -32768;

/** Displays by table row. */
export class NumberColumn {
  readonly gives = "number";
  private readonly shown: Float64Array;
  private readonly bins: Int16Array;

  constructor(
    rows: number,
    readonly model: NumberObservation,
    private readonly value: DisplayAt,
  ) {
    this.shown = new Float64Array(rows).fill(Number.NaN);
    this.bins = new Int16Array(rows).fill(unasked);
  }

  /** The display in a row. */
  at(row: number): number {
    const known = this.shown[row] as number;
    if (!Number.isNaN(known)) return known;
    const value = this.value(row, 0);
    this.shown[row] = value;
    const bin = Math.floor(this.model.scale(value) / this.model.window);
    this.bins[row] = Math.max(-mostBins, Math.min(mostBins, bin));
    return value;
  }

  /** The window of the display it falls into, counted from zero on the scale. */
  binAt(row: number): number {
    // Only the bins are read here, because they are stored together and hundreds of tests are weighed at once.
    const known = this.bins[row] as number;
    if (known !== unasked) return known;
    this.at(row);
    return this.bins[row] as number;
  }

  static readonly most = mostBins;
}

/** The column of a test; makes its set-up's table if there is none yet. */
export function nominalColumn(compiled: CompiledCircuit, test: Test): NominalColumn {
  const model = observationOf(test.test);
  return model.gives === "word"
    ? new WordColumn(compiled.variants.length, model.outcomes.length, model.odds(compiled, test, false))
    : new NumberColumn(compiled.rows.length, model, model.value(compiled, test));
}
