import { line, type ProofLine, type ProofsOf } from "./proofStep";
import { ProofSteps, pointsAt, seenAt, tapped } from "./proofSteps";

/**
 * A plug: seen burnt, a wiggle changes it, or its harness side good and the part good with the plug off, yet dead when
 * mated. A joint between two halves: fed on one side and not on the other.
 */
export const plugProof: ProofsOf = (compiled, { part, where }) => {
  const steps = new ProofSteps(compiled);
  const { circuit, motors, points } = compiled.netlist;
  const live = compiled.liveSetups();
  const seen: ProofLine[] = [
    line("seen-burnt", seenAt(part, "melted")),
    line("wiggle", tapped(part, "starts", "changes")),
  ];
  const pin = where.slice(where.indexOf(":") + 1);
  if (circuit.parts.some(({ id }) => id === part)) {
    const [one, other] = [pointsAt(compiled, `${part}.${pin}a`), pointsAt(compiled, `${part}.${pin}b`)];
    return [
      ...seen,
      ...live.flatMap((setup) => [
        line("in-not-out", steps.there(one, setup), steps.missing(other, setup)),
        line("in-not-out", steps.there(other, setup), steps.missing(one, setup)),
      ]),
    ];
  }
  const terminal = circuit.connectors.find(({ id }) => id === part)?.pins[pin] ?? "";
  const owner = points.ownerOf.get(terminal) ?? "";
  const itself = points.names.filter((name) => points.ownerOf.get(name) === owner);
  const isMotor = motors.some((motor) => motor.part.id === owner);
  const sound = [
    steps.ohms(itself, "right"),
    steps.runsPast(part),
    ...(isMotor ? [steps.onLeads(owner, "right")] : []),
  ];
  return [
    ...seen,
    ...live.flatMap((setup) =>
      motors.flatMap((motor) =>
        sound.map((good) =>
          line(
            "plug-bypassed",
            steps.there([`${part}:${pin}`], setup),
            good,
            steps.runsWrong(motor.part.id, setup),
          ),
        ),
      ),
    ),
  ];
};
