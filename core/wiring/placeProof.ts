import { believe } from "../diagnose/belief/belief";
import { scoreReadings } from "../diagnose/belief/readingScore";
import { proofOf } from "../diagnose/proof/proof";
import type { Repair } from "../fault/repair";
import type { Tool } from "../predict/observations/tool";
import { type Reading, testOf } from "../predict/reading";
import { meaningOf } from "./meaning";
import { piecesOf } from "./piece";
import { placeTestFor } from "./placeOfTest";
import type { PlaceReading } from "./placeReading";
import { concreteReadings, type PlaceTest } from "./placeTest";

import type { BelievedCandidate } from "./wiringBelief";

/** What proves a repair under one wiring. */
interface ProofUnder {
  readonly complete: boolean;
  /** The tests to take first: those that a reading contradicts again, then those the proof still needs. */
  readonly missing: readonly PlaceTest[];
  /** Readings it does not explain, counted from 0. */
  readonly disputed: readonly number[];
}

/** A reading contradicts a fault that makes it this much less likely than a mistake would (judgement). */
const contradicts = 0.2;

/** A reading as a candidate understands it, and its place among the readings of the vehicle. */
interface Understood {
  readonly reading: Reading;
  readonly from: number;
}

/** The readings that a fault does not explain. */
function unexplained(
  { compiled }: BelievedCandidate,
  variant: number,
  understood: readonly Understood[],
): Understood[] {
  const samples = compiled.samples.length;
  const scores = scoreReadings(
    compiled,
    understood.map(({ reading }) => reading),
  );
  return understood.filter((_, index) => {
    const { odds, blind } = scores[index] ?? { odds: [], blind: 0 };
    let sum = 0;
    for (let sample = 0; sample < samples; sample++) sum += odds[variant * samples + sample] ?? 0;
    return sum / samples < contradicts * blind;
  });
}

/** What proves a repair under one wiring, with what its labels most likely stand for. */
export function proofUnder(
  own: BelievedCandidate,
  repair: Repair,
  readings: readonly PlaceReading[],
  tools: readonly Tool[],
): ProofUnder {
  const { candidate, compiled, variants } = own;
  const meanings = own.meanings();
  const understood = readings.flatMap((reading, from) =>
    piecesOf(candidate, compiled.netlist, reading)
      .flatMap((piece) => concreteReadings(piece, (of) => meaningOf(meanings, of)))
      .map((concrete): Understood => ({ reading: concrete, from })),
  );
  let likeliest = -1;
  for (const [variant, other] of own.repairs.entries())
    if (other === repair && (likeliest < 0 || (variants[variant] ?? 0) > (variants[likeliest] ?? 0)))
      likeliest = variant;
  const variant = compiled.variants[likeliest];
  if (!variant) return { complete: false, missing: [], disputed: [] };
  const disputed = unexplained(own, likeliest, understood);
  const concrete = understood.map(({ reading }) => reading);
  const proof = proofOf(compiled, believe(compiled, concrete), variant.repair, tools);
  return {
    complete: proof.complete && disputed.length === 0,
    missing: [
      ...disputed.map(({ reading }) => testOf(reading)),
      ...proof.missing.map(({ look }) => look),
    ].flatMap((test) => placeTestFor(candidate, meanings, test) ?? []),
    disputed: disputed.map(({ from }) => from),
  };
}
