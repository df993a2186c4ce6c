import { line, type ProofsOf } from "./proofStep";
import { ProofSteps, tapped, wireEnds } from "./proofSteps";

/** A wire: fed at one end and not at the other, no continuity, or shorted to the body with something unplugged. */
export const wireProof: ProofsOf = (compiled, { part, mode }) => {
  const steps = new ProofSteps(compiled);
  const ends = wireEnds(compiled, part);
  if (!ends) return [];
  const [one, other] = ends;
  if (mode === "to-ground" || mode === "chafed") return [line("shorted", steps.shorted(ends))];
  const setups = compiled.liveSetups();
  if (mode === "to-feed") {
    const off = { key: "run", setting: compiled.netlist.circuit.settings[0] ?? "off" } as const;
    return [off, { key: "off" } as const].map((setup) => line("stray-feed", steps.stray(ends, setup)));
  }
  return [
    line("ohms", steps.interrupted(one, other)),
    ...setups.flatMap((setup) => [
      line("one-end-fed", steps.there([one], setup), steps.missing([other], setup)),
      line("one-end-fed", steps.there([other], setup), steps.missing([one], setup)),
    ]),
    ...(mode === "loose" ? [line("wiggle", tapped(part, "starts", "changes"))] : []),
  ];
};
