import { slipMixed } from "../diagnose/belief/belief";
import { scoreReadings } from "../diagnose/belief/readingScore";
import { contentKey, type Reading } from "../predict/reading";
import type { CompiledCircuit } from "../predict/tables/compiledCircuit";
import type { CompiledCandidate } from "./compiledCandidate";
import { isMessage, meaningsAt } from "./meaning";
import type { LabelledPin, Meaning, Piece } from "./piece";

/* Chances that somebody calls a wire thick: one with the motor's current, a signal wire, or one of another circuit (judgements, no source). */
const thickIfHeavy = 0.9;
const thickIfLight = 0.1;
const thickIfForeign = 0.4;
/** Share of places where one more label is of another circuit (judgement). */
const foreignShare = 0.25;
/** Share of plugs that were read without one of their pins (judgement). */
const leftOutShare = 0.02;
/** Odds that one of the wiring's fuses is not among those tested: the main fuse is often elsewhere (judgement). */
const fuseLeftOut = 0.5;
/** Chance that the vehicle has a fuse that was not among those tested: most do not have it (judgement). */
const fuseOverlooked = 0.2;

/** What a wire of another circuit shows, whatever is wrong (judgements, no source). */
const foreignWords: Readonly<Record<string, number>> = { bright: 0.35, dim: 0.04, dark: 0.6, flickers: 0.01 };

/** What a fuse of another circuit shows: power at neither end, at one because it is blown, or at both (judgements). */
const foreignFuse = { dead: 0.2, blown: 0.01, good: 0.79 } as const;

/** Chance of any measurement with a lead on a wire of another circuit (judgement, no source). */
const unknownPair = 0.1;

/** A chance for each fault in each sampled vehicle, at fault times samples plus sample; that of an unknown fault last. */
export type Odds = Float64Array;

/** Number of cells of the odds of a circuit. */
const cellsOf = ({ variants, samples }: CompiledCircuit): number => variants.length * samples.length + 1;

export const evenOdds = (compiled: CompiledCircuit): Odds => new Float64Array(cellsOf(compiled)).fill(1);

/** The product of odds with others, or with one chance for all. */
export function multiplied(odds: Odds, factors: Odds | number): Odds {
  if (typeof factors === "number") return odds.map((own) => own * factors);
  const made = new Float64Array(odds.length);
  for (let cell = 0; cell < made.length; cell++)
    made[cell] = (odds[cell] as number) * (factors[cell] as number);
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

/** Chance of a reading on a wire of another circuit. */
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

/** The odds of what was read at labels, on one candidate. Each reading of its circuit is scored once. */
export class LabelOdds {
  private readonly known = new Map<string, Odds>();

  constructor(readonly own: CompiledCandidate) {}

  /** The odds of what was read at a label, if it stands for the given pin or fuse. */
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

  /** The chance of what was read at a label, if it is of another circuit. */
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

  /** The odds of a measurement between labels, by what they stand for. */
  ofPair(pair: Extract<Piece, { kind: "pair" }>, as: readonly Meaning[]): Odds | number {
    const reading = as.some((own) => isMessage(this.own.candidate, own)) ? null : pair.read(as);
    return reading ? this.of(reading) : unknownPair;
  }

  /** The odds that some fuses were not among those tested: a fuse that the vehicle does not have cannot have failed. */
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
    const key = contentKey(reading);
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
 * The share of one way to label a place. Ways that label as many of its pins or fuses are equally likely.
 * @param roles number of pins or fuses the candidate has there
 * @param used how many of them have a label; the other labels are of another circuit
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
 * How many labels of a place may be of another circuit. People read every pin of a plug, so only labels beyond the
 * candidate's pins may be; a fuse of another circuit is easily taken for one of the blower's.
 */
export const mostForeign = (place: LabelledPin["place"], labels: number, roles: number): number =>
  place === "fuses" ? labels : Math.max(0, labels - roles);
