import { anyOf, line, type ProofsOf } from "./proofStep";
import { ProofSteps, pointsAt } from "./proofSteps";

/**
 * A climate panel: its feeds and its ground good and its command wrong at its own plug, also with the control's plug
 * off, so that nothing loads the command down.
 */
export const climatePanelProof: ProofsOf = (compiled, { part }) => {
  const steps = new ProofSteps(compiled);
  const at = (terminal: string): string[] => pointsAt(compiled, `${part}.${terminal}`);
  const wired = (terminal: string): boolean =>
    compiled.netlist.circuit.wires.some(({ from, to }) =>
      [from, to].some((end) => [`${part}.${terminal}`, ...at(terminal)].includes(end)),
    );
  const feeds = ["30", "15"].filter(wired);
  const controls = compiled.netlist.modules.flatMap(({ part: control }) => steps.plugsOf(control.id));
  const [live, running] = [compiled.liveSetups(), compiled.runningSetups()];
  const unloaded = anyOf(...running.map((setup) => steps.command(at("cmd"), setup, "wrong", controls)));
  const fed = feeds.map((terminal) => anyOf(...live.map((setup) => steps.there(at(terminal), setup))));
  const grounded = anyOf(...live.map((setup) => steps.grounded(at("31"), setup, steps.plugsOf(part))));
  return running.map((setup) =>
    line("command-wrong", ...fed, grounded, steps.command(at("cmd"), setup, "wrong"), unloaded),
  );
};
