import { anyOf, line, type ProofLine, type ProofsOf } from "./proofStep";
import { type ProofSetup, ProofSteps, pointsAt } from "./proofSteps";

/**
 * An electronic control: its feed, its ground and its command good while its output is wrong. One that is full on: its
 * output present with the command at off, or with the key off, or a blower that stops once its plug is off.
 */
export const controlModuleProof: ProofsOf = (compiled, { part, mode }) => {
  const steps = new ProofSteps(compiled);
  const { motors, circuit } = compiled.netlist;
  const at = (terminal: string): string[] => pointsAt(compiled, `${part}.${terminal}`);
  const driven = motors.map(({ part: motor }) => ({
    id: motor.id,
    outputs: ["+", "-"].flatMap((terminal) => pointsAt(compiled, `${motor.id}.${terminal}`)),
  }));
  const outputs = [...at("m+"), ...at("m-")];
  const off: ProofSetup = { key: "run", setting: circuit.settings[0] ?? "off" };
  const command = (setup: ProofSetup) => steps.command(at("cmd"), setup, "right");
  if (mode === "full-on")
    return driven.flatMap((motor): ProofLine[] => {
      const present = (setup: ProofSetup) => steps.output([...outputs, ...motor.outputs], motor.id, setup);
      return [
        line("output-at-off", present({ key: "off" })),
        line("output-at-off", present(off), command(off)),
        line(
          "stops-unplugged",
          steps.runsWrong(motor.id, off),
          steps.stopsWithout(motor.id, off, steps.plugsOf(part)),
        ),
      ];
    });
  const live = compiled.liveSetups();
  const fed = anyOf(...live.map((setup) => steps.there(at("30"), setup)));
  const grounded = anyOf(...live.map((setup) => steps.grounded(at("31"), setup, steps.plugsOf(part))));
  return driven.flatMap((motor) =>
    compiled
      .runningSetups()
      .map((setup) =>
        line(
          "output-wrong",
          fed,
          grounded,
          command(setup),
          steps.output([...outputs, ...motor.outputs], motor.id, setup),
        ),
      ),
  );
};
