import { adaptation } from "../access/adaptation";
import { type FittingStep, fittingSteps } from "../access/fittingStep";
import type { Circuit } from "../circuit/circuit";
import { plugOf } from "../match/spliceLeads";
import type { WorkLine } from "./workLine";

/** Wires that end at a plug; each is a lead of the new one. */
const leadsOf = ({ connectors, wires }: Circuit, plug: string): number => {
  const terminals = new Set(Object.values(connectors.find(({ id }) => id === plug)?.pins ?? {}));
  // An in-line plug has no pins of its own: its wires end at its terminals.
  const ends = (point: string): boolean => terminals.has(point) || point.startsWith(`${plug}.`);
  return wires.reduce((sum, { from, to }) => sum + Number(ends(from)) + Number(ends(to)), 0);
};

/** The steps of a line of work on a plug or a wire itself; none for other work. */
function stepsOfLine(circuit: Circuit, part: string, done: WorkLine["done"]): FittingStep[] {
  const leads = done === "spliced" ? leadsOf(circuit, part) : 0;
  if (leads > 0) return fittingSteps(part, [adaptation("splice-leads", leads)]);
  if (done === "repaired" && circuit.wires.some(({ id }) => id === part))
    return fittingSteps(part, [adaptation("mend-wire")]);
  return [];
}

/**
 * The steps that lines of work on plugs and wires ask for. A plug that is spliced in with a new part has its step there.
 * @param adapted the steps of the new parts
 */
export function ownSteps(
  circuit: Circuit,
  lines: readonly Pick<WorkLine, "part" | "done" | "adapts">[],
  adapted: readonly FittingStep[],
): FittingStep[] {
  const withParts = new Set(
    adapted.flatMap(({ part, adaptation: { work } }) =>
      work === "splice-leads" ? (plugOf(circuit, part) ?? []) : [],
    ),
  );
  return lines.flatMap(({ part, done, adapts }) =>
    part && !adapts && !withParts.has(part) ? stepsOfLine(circuit, part, done) : [],
  );
}
