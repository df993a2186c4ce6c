import type { Reading } from "../../predict/reading";
import { readingProblems } from "../../predict/readingProblems";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type Belief, believe, type Start } from "../belief/belief";
import { believeThrough, carriedOver, type FailedRepair } from "./failedRepair";

/** An earlier visit whose repair held at first: the readings taken then, and the parts put right. */
export interface EarlierVisit {
  readonly readings: readonly Reading[];
  readonly repairs: readonly FailedRepair[];
  readonly parts: readonly string[];
}

/** Share of comebacks that the first visit left behind; the rest are new faults (judgement, no source). */
const leftBehind = 0.5;

/**
 * The belief to begin a job with: the odds of any vehicle, or for a comeback those after its earlier visit. Where the
 * circuit has changed so that the earlier readings name what it no longer has, the earlier visit tells nothing.
 * @param priors odds by suspect in place of the catalogue's
 */
export function beginning(
  compiled: CompiledCircuit,
  earlier: EarlierVisit | null | undefined,
  priors: ArrayLike<number> | null,
): Belief["start"] {
  const isReadable = earlier?.readings.every((own) => readingProblems(compiled, own).length === 0);
  return earlier && isReadable ? beginningAfter(compiled, earlier, priors) : priors;
}

/**
 * The belief to begin a comeback with: half what the first visit's repair would have left, which is the cause of a
 * cured victim with or without the victim burnt again, another suspect of then, or the new part itself; half a new fault,
 * by the odds of any vehicle.
 */
function beginningAfter(
  compiled: CompiledCircuit,
  { readings, repairs, parts }: EarlierVisit,
  priors: ArrayLike<number> | null,
): Start {
  const then = believeThrough(compiled, readings, repairs, priors);
  const left = carriedOver(compiled, then, parts);
  burntAgain(compiled, then, parts, left.joint);
  const fresh: Belief = believe(compiled, [], undefined, priors);
  const whole = left.joint.reduce((sum, own) => sum + own, left.unknown);
  return {
    joint: left.joint.map(
      (own, cell) => (leftBehind * own) / whole + (1 - leftBehind) * (fresh.joint[cell] ?? 0),
    ),
    unknown: (leftBehind * left.unknown) / whole + (1 - leftBehind) * fresh.unknown,
  };
}

/** A cause that stayed in the vehicle has had time to burn its new victim too: as likely as that it has not yet. */
function burntAgain(
  { variants, samples }: CompiledCircuit,
  then: Belief,
  parts: readonly string[],
  joint: Float64Array,
): void {
  for (const [variant, { fault }] of variants.entries()) {
    const [cause = "", ...victims] = fault.parts;
    if (victims.length === 0 || parts.includes(cause) || !victims.every((own) => parts.includes(own)))
      continue;
    for (let cell = variant * samples.length; cell < (variant + 1) * samples.length; cell++)
      joint[cell] = (joint[cell] ?? 0) + (then.joint[cell] ?? 0);
  }
}
