import type { ProofsOf } from "./proofStep";
import { ProofSteps, pointsAt, seenAt, tapped } from "./proofSteps";

/** A fuse or its socket: seen blown or burnt, or one side fed and the other not. */
export const fuseProof: ProofsOf = (compiled, { part, mode }) => {
  const steps = new ProofSteps(compiled);
  const [fed, load] = [pointsAt(compiled, `${part}.in`), pointsAt(compiled, `${part}.out`)];
  return [
    [seenAt(part, "blown", "melted")],
    ...compiled.liveSetups().map((setup) => [steps.there(fed, setup), steps.missing(load, setup)]),
    ...(mode === "loose" ? [[tapped(part, "starts", "changes")]] : []),
  ];
};
