import { believe, slipMixed } from "../diagnose/belief/belief";
import { scoreReadings } from "../diagnose/belief/readingScore";
import { keyOfReading, type Reading, readingKey } from "../predict/reading";
import type { CompiledCircuit } from "../predict/tables/compiledCircuit";
import type { Candidate, PinRole } from "./candidate";
import type { CompiledCandidate } from "./compiledCandidate";
import type { LabelledPin, Meaning, Piece } from "./piece";
import { piecesOf } from "./piece";
import type { PlaceReading } from "./placeReading";

/** What each label of a vehicle stands for, by its place. */
export type Meanings = ReadonlyMap<LabelledPin["place"], ReadonlyMap<string, Meaning>>;

/** One reading of the labels, with what the candidate's faults are worth under it. */
export interface LabelState {
  readonly meanings: Meanings;
  /** Weights by variant times samples plus sample, the unknown last. */
  readonly weights: Float64Array;
  /** The sum of the weights. */
  readonly sum: number;
}

/** A candidate after some readings. */
export interface WeighedCandidate extends CompiledCandidate {
  /** Readings of the labels, likeliest first; their weights share one scale. */
  readonly states: readonly LabelState[];
  /** Natural logarithm of the likelihood of all readings under this candidate, its prior left out. */
  readonly evidence: number;
  /** Readings that need no label. */
  readonly plain: readonly Reading[];
}

/*
 * Chances that somebody misjudges how a car is wired (judgements, no source): that they report a part the candidate does
 * not have, because they took another part for it; that they miss a part that is there, most often a hidden relay; that
 * they call a wire that carries the motor's current thick, or a signal wire thick.
 */
const foundAnyway = 0.01;
const notFound = { relay: 0.3, usual: 0.03 } as const;
const thickIfHeavy = 0.9;
const thickIfLight = 0.1;
const thickIfForeign = 0.4;
/** Share of plugs with each further wire that belongs to nothing here, and of plugs read without one of their pins. */
const foreignShare = 0.25;
const leftOutShare = 0.02;
/** The same for each fuse of the blower's circuit: the main fuse is often elsewhere. */
const fuseLeftOut = 0.5;

/** The most readings of the labels kept at a time, and the smallest share of the likeliest one's weight kept. */
const mostStates = 40;
const leastShare = 1e-7;

/** What a wire that belongs to nothing here shows, whatever is wrong (judgements, no source). */
const foreignWords: Readonly<Record<string, number>> = { bright: 0.35, dim: 0.04, dark: 0.6, flickers: 0.01 };

/** What a fuse of another circuit shows: power at neither end, at one because it is blown, or at both (judgements). */
const foreignFuse = { dead: 0.2, blown: 0.01, good: 0.79 } as const;

const nothing: Meaning = { pin: null, fuse: null };
const none: ReadonlyMap<string, Meaning> = new Map();

/** What a labelled pin stands for. */
export const meaningOf = (meanings: Meanings, { place, label }: LabelledPin): Meaning =>
  meanings.get(place)?.get(label) ?? nothing;

/** Whether a pin carries messages of a data bus, of which lamps and meters tell nothing. */
export const isMessage = ({ facts }: Pick<Candidate, "facts">, { pin }: Meaning): boolean =>
  facts.drive === "bus" && pin?.role === "command";

const withMeaning = (meanings: Meanings, { place, label }: LabelledPin, meaning: Meaning): Meanings =>
  new Map(meanings).set(place, new Map(meanings.get(place) ?? none).set(label, meaning));

/** Likelihood of a reading by variant times samples plus sample, the unknown last, slips mixed in. */
function likelihood(compiled: CompiledCircuit, reading: Reading): Float64Array {
  const [score] = scoreReadings(compiled, [reading]);
  const cells = compiled.variants.length * compiled.samples.length;
  const own = new Float64Array(cells + 1);
  if (!score) return own.fill(1);
  for (let cell = 0; cell < cells; cell++)
    own[cell] = slipMixed(reading, score.odds[cell] as number, score.blind);
  own[cells] = score.unlisted;
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

function multiplied(weights: Float64Array, factors: Float64Array | number, scale = 1): Float64Array {
  const made = new Float64Array(weights.length);
  if (typeof factors === "number") {
    const times = factors * scale;
    for (let cell = 0; cell < made.length; cell++) made[cell] = (weights[cell] as number) * times;
  } else
    for (let cell = 0; cell < made.length; cell++)
      made[cell] = (weights[cell] as number) * (factors[cell] as number) * scale;
  return made;
}

const sumOf = (weights: Float64Array): number => {
  let sum = 0;
  for (const own of weights) sum += own;
  return sum;
};

/** What a label of a place can stand for on a candidate. */
function meaningsAt({ candidate }: CompiledCandidate, place: LabelledPin["place"]): Meaning[] {
  if (place === "fuses") return candidate.fuses.map((fuse) => ({ pin: null, fuse }));
  return (candidate.plugs.get(place)?.pins ?? []).map((pin: PinRole) => ({ pin, fuse: null }));
}

/** Share of the ways to label a number of pins of which some belong to nothing. */
function labellingShare(place: LabelledPin["place"], labels: number, roles: number): number {
  let ways = 1;
  for (let at = 0; at < Math.min(labels, roles); at++) ways *= Math.max(labels, roles) - at;
  const extra = labels - roles;
  const leftOut = place === "fuses" ? fuseLeftOut : leftOutShare;
  const share = extra >= 0 ? (1 - foreignShare) * foreignShare ** extra : leftOut ** -extra;
  return share / ways;
}

/** A state with one more reading in it, not yet multiplied out. */
interface Proposal {
  readonly meanings: Meanings;
  readonly from: LabelState;
  readonly factors: Float64Array | number;
  readonly sum: number;
}

function proposal(meanings: Meanings, from: LabelState, factors: Float64Array | number): Proposal {
  if (typeof factors === "number") return { meanings, from, factors, sum: factors * from.sum };
  const { weights } = from;
  let sum = 0;
  for (let cell = 0; cell < weights.length; cell++)
    sum += (weights[cell] as number) * (factors[cell] as number);
  return { meanings, from, factors, sum };
}

/** The likeliest of some proposals, multiplied out and scaled, so that the largest sum is 1; and that sum. */
function kept(proposals: readonly Proposal[]): { states: LabelState[]; most: number } {
  const sorted = [...proposals].sort((a, b) => b.sum - a.sum);
  const most = sorted[0]?.sum ?? 0;
  if (!(most > 0))
    return { states: sorted.slice(0, 1).map(({ meanings, from }) => ({ ...from, meanings })), most: 1 };
  const least = leastShare * most;
  return {
    most,
    states: sorted
      .filter(({ sum }, place) => place < mostStates && sum >= least)
      .map(({ meanings, from, factors, sum }) => ({
        meanings,
        weights: multiplied(from.weights, factors, 1 / most),
        sum: sum / most,
      })),
  };
}

/** Multiplies readings of labels into the states of a candidate, label by label. */
class Labelling {
  private log = 0;
  private states: LabelState[];

  constructor(
    private readonly own: CompiledCandidate,
    weights: Float64Array,
  ) {
    this.states = [{ meanings: new Map(), weights, sum: sumOf(weights) }];
  }

  /** The labels of one place, each with what was read of it. */
  place(place: LabelledPin["place"], labels: ReadonlyMap<string, readonly Piece[]>): void {
    const roles = meaningsAt(this.own, place);
    const share = labellingShare(place, labels.size, roles.length);
    const mayBeForeign = Math.max(0, labels.size - roles.length);
    this.scale(share);
    for (const [label, pieces] of labels) {
      const factors = roles.map((role) => this.factorOf(pieces, role));
      const foreign = this.foreignFactor(pieces);
      const pin = { place, label };
      this.take(
        this.states.flatMap((state) => {
          const at = [...(state.meanings.get(place) ?? none).values()];
          const strangers = at.filter((own) => own === nothing).length;
          const next = roles.flatMap((role, index) =>
            at.includes(role)
              ? []
              : [proposal(withMeaning(state.meanings, pin, role), state, factors[index] as Float64Array)],
          );
          if (strangers >= mayBeForeign) return next;
          return [...next, proposal(withMeaning(state.meanings, pin, nothing), state, foreign)];
        }),
      );
    }
  }

  /** Readings that join labels. */
  pair(piece: Extract<Piece, { kind: "pair" }>): void {
    this.take(
      this.states.map((state) => {
        const meanings = piece.of.map((of) => meaningOf(state.meanings, of));
        const reading = meanings.some((own) => isMessage(this.own.candidate, own))
          ? null
          : piece.read(meanings);
        const factor = reading ? likelihood(this.own.compiled, reading) : unknownPair;
        return proposal(state.meanings, state, factor);
      }),
    );
  }

  scale(factor: number): void {
    this.log += Math.log(factor);
  }

  done(): { states: readonly LabelState[]; log: number } {
    return {
      states: this.states,
      log: this.log + Math.log(this.states.reduce((all, { sum }) => all + sum, 0)),
    };
  }

  private factorOf(pieces: readonly Piece[], meaning: Meaning): Float64Array {
    const { compiled } = this.own;
    let factors = new Float64Array(compiled.variants.length * compiled.samples.length + 1).fill(1);
    for (const piece of pieces) {
      if (piece.kind === "wire") {
        const thick = meaning.pin?.heavy ? thickIfHeavy : thickIfLight;
        factors = multiplied(factors, piece.heavy ? thick : 1 - thick) as typeof factors;
      }
      if (piece.kind === "pin")
        for (const reading of piece.read(meaning))
          factors = multiplied(
            factors,
            isMessage(this.own.candidate, meaning)
              ? ofForeign(compiled, reading)
              : likelihood(compiled, reading),
          ) as typeof factors;
    }
    return factors;
  }

  private foreignFactor(pieces: readonly Piece[]): number {
    const [some] = meaningsAt(this.own, pieces[0]?.kind === "pin" ? pieces[0].of.place : "motor-plug");
    return pieces.reduce((product, piece) => {
      if (piece.kind === "wire") return product * (piece.heavy ? thickIfForeign : 1 - thickIfForeign);
      if (piece.kind !== "pin" || !some) return product;
      if (piece.of.place === "fuses") return product * ofForeignFuse(piece.read(some));
      return piece.read(some).reduce((own, reading) => own * ofForeign(this.own.compiled, reading), product);
    }, 1);
  }

  /** Goes on with the likeliest proposals. */
  private take(proposals: readonly Proposal[]): void {
    const { states, most } = kept(proposals);
    this.states = states;
    this.log += Math.log(most);
  }
}

/** A measurement with one lead on a wire that belongs to nothing (judgement, no source). */
const unknownPair = 0.1;

/** Readings of which each content counts once: the same reading taken twice tells nothing new of the wiring. */
const once = (readings: readonly Reading[]): Reading[] => [
  ...new Map(
    readings.map((reading) => [`${keyOfReading(reading)} ${readingKey(reading)}`, reading]),
  ).values(),
];

/**
 * Weighs readings by place on one candidate: every fault in every sampled vehicle, under every reading of the labels
 * that matters. Labels stay the same for the vehicle, so all readings of a label are taken together, and the sum runs
 * over whole assignments of labels to pins.
 */
export function weighCandidate(own: CompiledCandidate, readings: readonly PlaceReading[]): WeighedCandidate {
  const { candidate, compiled } = own;
  const pieces = readings.flatMap((reading) => piecesOf(candidate, compiled.netlist, reading));
  const plain = once(pieces.flatMap((piece) => (piece.kind === "plain" ? [piece.reading] : [])));
  const begun = believe(compiled, plain);
  const weights = new Float64Array(begun.joint.length + 1);
  weights.set(begun.joint);
  weights[begun.joint.length] = begun.unknown;
  const labelling = new Labelling(own, weights);
  for (const piece of pieces) if (piece.kind === "there") labelling.scale(thereShare(piece));
  const byPlace = new Map<LabelledPin["place"], Map<string, Piece[]>>();
  for (const piece of pieces) {
    const ofLabel =
      piece.kind === "pin" || piece.kind === "wire" ? [piece.of] : piece.kind === "pair" ? piece.of : [];
    for (const { place, label } of ofLabel) {
      const labels = byPlace.get(place) ?? new Map<string, Piece[]>();
      byPlace.set(place, labels);
      const list = labels.get(label) ?? [];
      labels.set(label, piece.kind === "pair" ? list : [...list, piece]);
    }
  }
  for (const [place, labels] of byPlace) labelling.place(place, labels);
  for (const piece of pieces) if (piece.kind === "pair") labelling.pair(piece);
  const { states, log } = labelling.done();
  return { ...own, states, evidence: begun.evidence + log, plain };
}

function thereShare({ place, seen, has }: Extract<Piece, { kind: "there" }>): number {
  if (seen) return has ? 1 : foundAnyway;
  if (!has) return 1;
  return place === "relay" ? notFound.relay : notFound.usual;
}
