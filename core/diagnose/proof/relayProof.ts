import { line, type ProofsOf } from "./proofStep";
import { type ProofSetup, ProofSteps, pointsAt, seenAt, swapped, tapped } from "./proofSteps";

/**
 * A relay: its coil fed and grounded and its contact not making, a known-good relay cures it, or its contact makes
 * with the coil off.
 */
export const relayProof: ProofsOf = (compiled, { part, mode }) => {
  const steps = new ProofSteps(compiled);
  const at = (terminal: string): string[] => pointsAt(compiled, `${part}.${terminal}`);
  const { motors, circuit } = compiled.netlist;
  const still: ProofSetup[] = [{ key: "run", setting: circuit.settings[0] ?? "off" }, { key: "off" }];
  if (mode === "welded")
    return [
      line("swap-cures", swapped(part, "fixed")),
      ...still.flatMap((setup) => [
        line("makes-when-off", steps.stray(at("87"), setup)),
        ...motors.map(({ part: motor }) => line("makes-when-off", steps.runsWrong(motor.id, setup))),
      ]),
    ];
  return [
    line("swap-cures", swapped(part, "fixed")),
    line("starts-when-tapped", tapped(part, "starts")),
    line("seen-burnt", seenAt(part, "melted")),
    ...compiled
      .liveSetups()
      .map((setup) =>
        line(
          "in-not-out",
          steps.there(at("86"), setup),
          steps.there(at("85"), setup),
          steps.there(at("30"), setup),
          steps.missing(at("87"), setup),
        ),
      ),
  ];
};
