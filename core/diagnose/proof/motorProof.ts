import type { ProofLine, ProofsOf } from "./proofStep";
import {
  noisy,
  ProofSteps,
  pointsAt,
  rippled,
  seenAt,
  silencedAtVent,
  tapped,
  turned,
  whistles,
} from "./proofSteps";

/** Modes that are heard or felt rather than measured. */
const mechanical = new Set([
  "wheel-loose",
  "debris",
  "bearing-dry",
  "bearing-worn",
  "unbalanced",
  "scrape",
  "vent-whistle",
]);

/**
 * A motor: feed and ground across its mated plug and it does not run right, no better on fused leads, a lamp in its
 * place that lights, starts when tapped, uneven ripple, or stiff by hand with its current or volts explained. One that
 * makes a noise is heard, felt or seen into.
 */
export const motorProof: ProofsOf = (compiled, { part, mode, withFuse }) => {
  const steps = new ProofSteps(compiled);
  const [plus, minus] = [pointsAt(compiled, `${part}.+`), pointsAt(compiled, `${part}.-`)];
  const fed = compiled
    .runningSetups()
    .map((setup) => ({ setup, both: steps.across(plus, minus, setup), wrong: steps.runsWrong(part, setup) }));
  const electrical = fed.flatMap(({ setup, both, wrong }): ProofLine[] => [
    [both, wrong],
    [steps.there(plus, setup), steps.there(minus, setup), wrong],
    [steps.lamp(part, setup), wrong],
  ]);
  const felt = fed.flatMap(({ setup, both }): ProofLine[] => [
    [turned(part, "stiff", "seized"), both],
    [turned(part, "stiff", "seized"), steps.drawsWrong(part, setup)],
    [rippled(part, "missing"), both],
  ]);
  if (!mechanical.has(mode))
    return [
      ...electrical,
      ...felt,
      [steps.onLeads(part, "wrong")],
      [tapped(part, "starts")],
      [rippled(part, "uneven")],
      // A fuse that blew with it explains why nothing could be measured.
      ...(withFuse ? [[turned(part, "stiff", "seized")]] : []),
    ];
  return [
    [noisy],
    [turned(part, "rough", "stiff", "seized")],
    [seenAt(part, "debris")],
    [whistles, silencedAtVent],
    ...(mode === "wheel-loose" || mode === "debris" ? electrical : []),
  ];
};
