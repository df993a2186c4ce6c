import { believe } from "../diagnose/belief/belief";
import { type Reading, readingKey } from "../predict/reading";
import type { CompiledCandidate } from "./compiledCandidate";
import { type LabelGroup, Labelling, type PairPiece } from "./labelling";
import { LabelOdds, multiplied, type Odds } from "./labelOdds";
import type { Meanings } from "./meaning";
import type { LabelledPin, Piece } from "./piece";
import { piecesOf } from "./piece";
import type { PlaceReading } from "./placeReading";

/** A candidate after some readings. */
export interface WeighedCandidate extends CompiledCandidate {
  /** What each label most likely stands for; worked out on demand, because unlikely candidates never need it. */
  readonly meanings: () => Meanings;
  /** Belief by fault times samples plus sample, the unknown last, over all readings of the labels; it sums to 1. */
  readonly weights: Odds;
  /** Natural logarithm of the likelihood of all readings under this candidate, its prior left out. */
  readonly evidence: number;
  /** Readings that need no label. */
  readonly plain: readonly Reading[];
}

/*
 * Chances that somebody misjudges how a car is wired (judgements, no source): that they report a part the candidate does
 * not have, because they took another part for it; that they miss a part that is there, most often a hidden relay.
 */
const foundAnyway = 0.01;
const notFound = { relay: 0.3, usual: 0.03 } as const;

/** Readings of which each content counts once: the same reading taken twice tells nothing new of the wiring. */
const once = (readings: readonly Reading[]): Reading[] => [
  ...new Map(readings.map((reading) => [readingKey(reading), reading])).values(),
];

/** What was read of each label alone, by place. */
function labelsOf(pieces: readonly Piece[]): Map<LabelledPin["place"], Map<string, Piece[]>> {
  const places = new Map<LabelledPin["place"], Map<string, Piece[]>>();
  for (const piece of pieces) {
    const ends =
      piece.kind === "pin" || piece.kind === "wire" ? [piece.of] : piece.kind === "pair" ? piece.of : [];
    for (const { place, label } of ends) {
      const labels = places.get(place) ?? new Map<string, Piece[]>();
      places.set(place, labels);
      const list = labels.get(label) ?? [];
      labels.set(label, piece.kind === "pair" ? list : [...list, piece]);
    }
  }
  return places;
}

/** The labels in groups: places that no reading joins say nothing of each other's labels. */
function groupsOf(pieces: readonly Piece[]): LabelGroup[] {
  const pairs = pieces.flatMap((piece): PairPiece[] => (piece.kind === "pair" ? [piece] : []));
  const places = labelsOf(pieces);
  const open = new Set(places.keys());
  const groups: LabelGroup[] = [];
  for (const first of open) {
    const joined = new Set([first]);
    for (const place of joined)
      for (const { of } of pairs)
        if (of.some((end) => end.place === place)) for (const end of of) joined.add(end.place);
    for (const place of joined) open.delete(place);
    groups.push({
      places: new Map([...places].filter(([place]) => joined.has(place))),
      pairs: pairs.filter(({ of }) => of.some((end) => joined.has(end.place))),
    });
  }
  return groups;
}

/** A belief without the odds of some readings. */
const without = (weights: Odds, odds: Odds | undefined): Odds =>
  weights.map((weight, cell) => (odds?.[cell] ? weight / odds[cell] : 0));

const sumOf = (odds: Odds): number => odds.reduce((sum, own) => sum + own, 0);

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
  let weights: Odds = Float64Array.of(...begun.joint, begun.unknown);
  let evidence = begun.evidence;
  for (const piece of pieces) if (piece.kind === "there") evidence += Math.log(thereShare(piece));
  const read = new LabelOdds(own);
  const labellings = groupsOf(pieces).map((group) => new Labelling(read, group));
  const oddsOf = labellings.map((labelling) => {
    const { odds, log } = labelling.summed();
    const after = multiplied(weights, odds);
    const sum = sumOf(after);
    evidence += log + Math.log(sum);
    if (sum > 0) weights = multiplied(after, 1 / sum);
    return odds;
  });
  let meanings: Meanings | null = null;
  return {
    ...own,
    meanings: () => {
      // What a label stands for is judged last, by all that was read elsewhere.
      meanings ??= new Map(
        labellings.flatMap((labelling, at) => [...labelling.likeliest(without(weights, oddsOf[at]))]),
      );
      return meanings;
    },
    weights,
    evidence,
    plain,
  };
}

function thereShare({ place, seen, has }: Extract<Piece, { kind: "there" }>): number {
  if (seen) return has ? 1 : foundAnyway;
  if (!has) return 1;
  return place === "relay" ? notFound.relay : notFound.usual;
}
