import { line, type ProofsOf } from "./proofStep";
import { ProofSteps, pointsAt, seenAt, tapped } from "./proofSteps";

/** A fuse or its socket is proved bad by eye, or if one side has feed and the other has none. */
export const fuseProof: ProofsOf = (compiled, { part, mode }) => {
  const steps = new ProofSteps(compiled);
  const [fed, load] = [pointsAt(compiled, `${part}.in`), pointsAt(compiled, `${part}.out`)];
  return [
    line("seen-blown", seenAt(part, "blown", "melted")),
    ...compiled
      .liveSetups()
      .map((setup) => line("in-not-out", steps.there(fed, setup), steps.missing(load, setup))),
    ...(mode === "loose" ? [line("wiggle", tapped(part, "starts", "changes"))] : []),
  ];
};
