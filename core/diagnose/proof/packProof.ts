import { line, type ProofsOf } from "./proofStep";
import { ProofSteps, pointsAt, seenAt } from "./proofSteps";

/** A resistor pack: an element or its link off in ohms, volts in and none out, or seen burnt. */
export const packProof: ProofsOf = (compiled, { part }) => {
  const steps = new ProofSteps(compiled);
  const { points } = compiled.netlist;
  const terminals = points.names.filter((name) => points.ownerOf.get(name) === part);
  const pins = terminals.flatMap((terminal) => pointsAt(compiled, terminal));
  return [
    line("ohms", steps.ohms([...terminals, ...pins], "wrong")),
    line("seen-burnt", seenAt(part, "melted")),
    ...compiled
      .liveSetups()
      .map((setup) => line("in-not-out", steps.there(pins, setup), steps.missing(pins, setup))),
  ];
};
