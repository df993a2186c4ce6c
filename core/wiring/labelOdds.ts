import { slipMixed } from "../diagnose/belief/belief";
import { scoreReadings } from "../diagnose/belief/readingScore";
import { keyOfReading, type Reading, readingKey } from "../predict/reading";
import type { CompiledCircuit } from "../predict/tables/compiledCircuit";
import type { CompiledCandidate } from "./compiledCandidate";
import { isMessage, meaningsAt } from "./meaning";
import type { LabelledPin, Meaning, Piece } from "./piece";

/*
 * Chances that somebody calls a wire that carries the motor's current thick, a signal wire, or one that belongs to
 * nothing here (judgements, no source).
 */
const thickIfHeavy = 0.9;
const thickIfLight = 0.1;
const thickIfForeign = 0.4;
/** Share of places with each further label that belongs to nothing here, and of plugs read without one of their pins. */
const foreignShare = 0.25;
const leftOutShare = 0.02;
/** The same for each fuse of the blower's circuit: the main fuse is often elsewhere. */
const fuseLeftOut = 0.5;
/** Chance that a fuse which was not among those tested is there all the same: most vehicles do not have it (judgement). */
const fuseOverlooked = 0.2;

/** What a wire that belongs to nothing here shows, whatever is wrong (judgements, no source). */
const foreignWords: Readonly<Record<string, number>> = { bright: 0.35, dim: 0.04, dark: 0.6, flickers: 0.01 };

/** What a fuse of another circuit shows: power at neither end, at one because it is blown, or at both (judgements). */
const foreignFuse = { dead: 0.2, blown: 0.01, good: 0.79 } as const;

/** A measurement with one lead on a wire that belongs to nothing (judgement, no source). */
const unknownPair = 0.1;

/** Chances by fault times samples plus sample, the unknown last. */
export type Odds = Float64Array;

/** Number of cells of the odds of a circuit. */
const cellsOf = ({ variants, samples }: CompiledCircuit): number => variants.length * samples.length + 1;

export const evenOdds = (compiled: CompiledCircuit): Odds => new Float64Array(cellsOf(compiled)).fill(1);

/** The product of odds with others, or with one chance for all. */
export function multiplied(odds: Odds, factors: Odds | number, scale = 1): Odds {
  const made = new Float64Array(odds.length);
  if (typeof factors === "number") {
    const times = factors * scale;
    for (let cell = 0; cell < made.length; cell++) made[cell] = (odds[cell] as number) * times;
  } else
    for (let cell = 0; cell < made.length; cell++)
      made[cell] = (odds[cell] as number) * (factors[cell] as number) * scale;
  return made;
}

/** Likelihood of a reading, slips mixed in. */
function likelihood(compiled: CompiledCircuit, reading: Reading): Odds {
  const [score] = scoreReadings(compiled, [reading]);
  const own = evenOdds(compiled);
  if (!score) return own;
  const last = own.length - 1;
  for (let cell = 0; cell < last; cell++)
    own[cell] = slipMixed(reading, score.odds[cell] as number, score.blind);
  own[last] = score.unlisted;
  return own;
}

/** Chance of a reading on a wire that belongs to nothing here. */
function ofForeign(compiled: CompiledCircuit, reading: Reading): number {
  if (reading.test === "light") return foreignWords[reading.seen] ?? 0.1;
  const [score] = scoreReadings(compiled, [reading]);
  return score?.blind ?? 0.1;
}

/** Chance of what was read at both ends of a fuse of another circuit. */
function ofForeignFuse(ends: readonly Reading[]): number {
  const lit = ends.filter((end) => end.test === "light" && end.seen === "bright").length;
  return lit === 0 ? foreignFuse.dead : lit === 1 ? foreignFuse.blown : foreignFuse.good;
}

/** What was read of labels, weighed on one candidate; each reading of its circuit once. */
export class LabelOdds {
  private readonly known = new Map<string, Odds>();

  constructor(readonly own: CompiledCandidate) {}

  /** Odds of what was read of a label that stands for something here. */
  as(pieces: readonly Piece[], meaning: Meaning): Odds {
    const { candidate, compiled } = this.own;
    let odds = evenOdds(compiled);
    for (const piece of pieces) {
      if (piece.kind === "wire") {
        const thick = meaning.pin?.heavy ? thickIfHeavy : thickIfLight;
        odds = multiplied(odds, piece.heavy ? thick : 1 - thick);
      }
      if (piece.kind === "pin")
        for (const reading of piece.read(meaning))
          odds = multiplied(
            odds,
            isMessage(candidate, meaning) ? ofForeign(compiled, reading) : this.of(reading),
          );
    }
    return odds;
  }

  /** Chance of what was read of a label that belongs to nothing here. */
  asForeign(place: LabelledPin["place"], pieces: readonly Piece[]): number {
    const { candidate, compiled } = this.own;
    const [some] = meaningsAt(candidate, place);
    return pieces.reduce((product, piece) => {
      if (piece.kind === "wire") return product * (piece.heavy ? thickIfForeign : 1 - thickIfForeign);
      if (piece.kind !== "pin" || !some) return product;
      if (place === "fuses") return product * ofForeignFuse(piece.read(some));
      return piece.read(some).reduce((own, reading) => own * ofForeign(compiled, reading), product);
    }, 1);
  }

  /** Odds of a measurement that joins labels, by what they stand for. */
  ofPair(pair: Extract<Piece, { kind: "pair" }>, as: readonly Meaning[]): Odds | number {
    const reading = as.some((own) => isMessage(this.own.candidate, own)) ? null : pair.read(as);
    return reading ? this.of(reading) : unknownPair;
  }

  /** Odds by fault that some fuses were not among those tested: one that is not on the vehicle cannot have failed. */
  withoutFuses(fuses: ReadonlySet<string>): Odds {
    const { compiled } = this.own;
    const odds = evenOdds(compiled);
    const { variants, samples } = compiled;
    for (const [variant, { fault }] of variants.entries())
      if (fault.parts.some((part) => fuses.has(part)))
        odds.fill(fuseOverlooked, variant * samples.length, (variant + 1) * samples.length);
    return odds;
  }

  private of(reading: Reading): Odds {
    const key = `${keyOfReading(reading)} ${readingKey(reading)}`;
    const odds = this.known.get(key) ?? likelihood(this.own.compiled, reading);
    this.known.set(key, odds);
    return odds;
  }
}

/** Number of ways to choose some of a number of things, in order. */
function arrangements(of: number, chosen: number): number {
  let ways = 1;
  for (let at = 0; at < chosen; at++) ways *= of - at;
  return ways;
}

/**
 * The share of one way to label a place, if all that leave as many labels and as many pins or fuses over are equally
 * likely.
 * @param roles number of pins or fuses the candidate has there
 * @param used how many of them have a label; the other labels belong to nothing here
 */
export function labellingShare(
  place: LabelledPin["place"],
  labels: number,
  roles: number,
  used: number,
): number {
  const leftOut = place === "fuses" ? fuseLeftOut : leftOutShare;
  const chosen = arrangements(roles, used) / arrangements(used, used);
  return (
    ((1 - foreignShare) * foreignShare ** (labels - used) * leftOut ** (roles - used)) /
    (chosen * arrangements(labels, used))
  );
}

/**
 * How many labels of a place may belong to nothing here. Of a plug's pins none is missed, so that only those left over
 * may; a fuse of the blower may be elsewhere, and another one be taken for it.
 */
export const mostForeign = (place: LabelledPin["place"], labels: number, roles: number): number =>
  place === "fuses" ? labels : Math.max(0, labels - roles);
