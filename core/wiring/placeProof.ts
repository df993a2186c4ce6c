import { believe } from "../diagnose/belief/belief";
import { scoreReadings } from "../diagnose/belief/readingScore";
import { proofOf } from "../diagnose/proof/proof";
import type { Repair } from "../fault/repair";
import type { Tool } from "../predict/observations/tool";
import { type Reading, testOf } from "../predict/reading";
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
}

/** A reading contradicts a fault that makes it this much less likely than a mistake would (judgement). */
const contradicts = 0.2;

/** The readings that a fault does not explain. */
function unexplained(
  { compiled }: BelievedCandidate,
  variant: number,
  readings: readonly Reading[],
): Reading[] {
  const samples = compiled.samples.length;
  return scoreReadings(compiled, readings).flatMap(({ odds, blind }, index) => {
    let sum = 0;
    for (let sample = 0; sample < samples; sample++) sum += odds[variant * samples + sample] as number;
    const reading = readings[index];
    return reading && sum / samples < contradicts * blind ? [reading] : [];
  });
}

/** What proves a repair under one wiring, with what its labels most likely stand for. */
export function proofUnder(
  own: BelievedCandidate,
  repair: Repair,
  readings: readonly PlaceReading[],
  tools: readonly Tool[],
): ProofUnder {
  const { candidate, compiled, states, variants } = own;
  const meanings = states[0]?.meanings ?? new Map();
  const concrete: Reading[] = readings.flatMap((reading) =>
    piecesOf(candidate, compiled.netlist, reading).flatMap((piece) => concreteReadings(piece, meanings)),
  );
  let likeliest = -1;
  own.repairs.forEach((other, variant) => {
    if (other === repair && (likeliest < 0 || (variants[variant] ?? 0) > (variants[likeliest] ?? 0)))
      likeliest = variant;
  });
  const variant = compiled.variants[likeliest];
  if (!variant) return { complete: false, missing: [] };
  const disputed = unexplained(own, likeliest, concrete);
  const proof = proofOf(compiled, believe(compiled, concrete), variant.repair, tools);
  return {
    complete: proof.complete && disputed.length === 0,
    missing: [...disputed.map(testOf), ...proof.missing.map(({ look }) => look)].flatMap(
      (test) => placeTestFor(candidate, meanings, test) ?? [],
    ),
  };
}
