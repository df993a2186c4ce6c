import { line, type ProofLine, type ProofsOf } from "./proofStep";
import { ProofSteps, pointsAt, tapped } from "./proofSteps";

/** A blower switch or an ignition switch: its input present, and an output of the position missing or dropped. */
export const switchProof: ProofsOf = (compiled, { part, mode }) => {
  const steps = new ProofSteps(compiled);
  const own = compiled.netlist.circuit.parts.find(({ id }) => id === part);
  if (own?.kind !== "selector" && own?.kind !== "ignition") return [];
  const at = (terminal: string): string[] => pointsAt(compiled, `${part}.${terminal}`);
  const input = own.kind === "selector" ? own.common : "30";
  const lines = compiled.liveSetups().flatMap((setup): ProofLine[] => {
    const stands =
      own.kind === "ignition" ? "run" : own.settings ? (setup.selectors?.[part] ?? "") : setup.setting;
    const closed = own.kind === "ignition" ? (own.closes.run ?? []) : (own.closes[stands] ?? []);
    return closed.map((output) =>
      line("in-not-out", steps.there(at(input), setup), steps.missing(at(output), setup)),
    );
  });
  const terminals = Object.values(own.closes).flatMap((closed) => closed ?? []);
  const itself = [input, ...terminals].map((terminal) => `${part}.${terminal}`);
  return [
    ...lines,
    line("ohms", steps.ohms(itself, "wrong")),
    ...(mode === "loose"
      ? steps.plugsOf(part).map((plug) => line("wiggle", tapped(plug, "starts", "changes")))
      : []),
  ];
};
