import type { Netlist } from "../../solve/netlist/netlist";
import { setupState } from "../../solve/netlist/setup";
import { nominalValues } from "../../solve/netlist/values";
import { PointSolver } from "../../solve/pointSolver";
import { leastAmps, pieceBranches } from "./pathBoard";

/** A branch in the direction of its current. */
interface Arrow {
  readonly from: number;
  readonly to: number;
  readonly owner: string;
}

/**
 * The path of a cell of the path board: from the battery through a piece to ground, along the healthy current of a
 * setting, key on. Where it divides or joins, every branch with current is on it.
 * @param id the row's id: a part, or a piece of one
 * @returns parts and wires on the path, including the piece's own part; empty if it carries nothing
 */
export function currentPath(netlist: Netlist, setting: string, id: string): string[] {
  const solved = new PointSolver(netlist).solve(
    nominalValues(netlist),
    setupState(netlist, { key: "run", setting }),
    [],
  );
  const arrowOf = (index: number): Arrow | null => {
    const branch = netlist.branches[index];
    const amps = solved.amps[index] ?? 0;
    if (!branch || index === netlist.battery.branch || Math.abs(amps) <= leastAmps) return null;
    const { a, b, owner } = branch;
    return amps > 0 ? { from: a, to: b, owner } : { from: b, to: a, owner };
  };
  const arrows = netlist.branches.flatMap((_, index) => arrowOf(index) ?? []);
  const own = pieceBranches(netlist, id).flatMap((index) => arrowOf(index) ?? []);
  const found = new Set<Arrow>(own);
  const follow = (start: readonly number[], enters: "from" | "to", leaves: "from" | "to"): void => {
    const seen = new Set(start);
    const open = [...start];
    for (let node = open.pop(); node !== undefined; node = open.pop()) {
      for (const arrow of arrows) {
        if (arrow[enters] !== node) continue;
        found.add(arrow);
        if (seen.has(arrow[leaves])) continue;
        seen.add(arrow[leaves]);
        open.push(arrow[leaves]);
      }
    }
  };
  follow(
    own.map(({ to }) => to),
    "from",
    "to",
  );
  follow(
    own.map(({ from }) => from),
    "to",
    "from",
  );
  return [...new Set([...found].map(({ owner }) => owner))];
}
