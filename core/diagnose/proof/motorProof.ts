import { isMechanical } from "../../motor/mechanicalMode";
import { line, type ProofLine, type ProofsOf } from "./proofStep";
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

/**
 * A motor: feed and ground across its mated plug and it does not run right, no better on fused leads, a lamp in its
 * place that lights, starts when tapped, uneven ripple, or stiff by hand with its current or volts explained. One that
 * makes a noise is heard, felt or seen into.
 */
export const motorProof: ProofsOf = (compiled, { part, mode, withFuse }) => {
  const steps = new ProofSteps(compiled);
  const [plus, minus] = [pointsAt(compiled, `${part}.+`), pointsAt(compiled, `${part}.-`)];
  const stiff = turned(part, "stiff", "seized");
  const fed = compiled
    .runningSetups()
    .map((setup) => ({ setup, both: steps.across(plus, minus, setup), wrong: steps.runsWrong(part, setup) }));
  const electrical = fed.flatMap(({ setup, both, wrong }): ProofLine[] => [
    line("fed-and-dead", both, wrong),
    line("fed-and-dead", steps.there(plus, setup), steps.there(minus, setup), wrong),
    line("lamp-lights", steps.lamp(part, setup), wrong),
  ]);
  const felt = fed.flatMap(({ setup, both }): ProofLine[] => [
    line("stiff", stiff, both),
    line("stiff", stiff, steps.drawsWrong(part, setup)),
    line("ripple", rippled(part, "missing"), both),
  ]);
  if (!isMechanical(mode))
    return [
      ...electrical,
      ...felt,
      line("no-better-on-leads", steps.onLeads(part, "wrong")),
      line("starts-when-tapped", tapped(part, "starts")),
      line("ripple", rippled(part, "uneven")),
      // A fuse that blew with it explains why nothing could be measured.
      ...(withFuse ? [line("stiff", stiff)] : []),
    ];
  return [
    line("noise", noisy),
    line("stiff", turned(part, "rough", "stiff", "seized")),
    line("debris", seenAt(part, "debris")),
    line("silenced", whistles, silencedAtVent),
    ...(mode === "wheel-loose" || mode === "debris" ? electrical : []),
  ];
};
