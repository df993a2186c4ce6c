import type { Part } from "../../circuit/parts/index";
import type { Reading } from "../../predict/reading";
import type { Netlist } from "../../solve/netlist/netlist";
import { setupState } from "../../solve/netlist/setup";
import { nominalValues } from "../../solve/netlist/values";
import { PointSolver } from "../../solve/pointSolver";

/** One row of the board: a part, or a piece of it with a path of its own. */
export interface PathRow {
  /** The part, or `R1.e2` and `K3.coil` for a piece. */
  readonly id: string;
  readonly part: string;
  /** Amps of the healthy circuit by setting, key on, in the circuit's order. */
  readonly amps: readonly number[];
}

/** Below this many amps a part gets no mark. */
export const leastAmps = 0.02;

/** Pieces of a part that carry different currents, each with its branches. */
function piecesOf(netlist: Netlist, part: Part): { id: string; branches: number[] }[] {
  const own = netlist.branches.flatMap(({ owner }, index) => (owner === part.id ? [index] : []));
  const idOf = (index: number): string => netlist.branches[index]?.id ?? part.id;
  if (part.kind === "resistor") return own.map((index) => ({ id: idOf(index), branches: [index] }));
  if (part.kind !== "relay") return [{ id: part.id, branches: own }];
  const coil = own.filter((index) => idOf(index) === `${part.id}.coil`);
  const contacts = own.filter((index) => !coil.includes(index));
  return [
    { id: `${part.id}.coil`, branches: coil },
    { id: part.id, branches: contacts },
  ];
}

/** Branches of a row of the board by its id; empty if there is no such row. */
export function pieceBranches(netlist: Netlist, id: string): number[] {
  for (const part of netlist.circuit.parts) {
    const piece = piecesOf(netlist, part).find((own) => own.id === id);
    if (piece) return piece.branches;
  }
  return [];
}

/**
 * The path board: what every part carries in every setting of the healthy circuit, key on. It is what a technician
 * marks on the diagram with coloured pencils, computed. Parts that never carry current are left out.
 */
export function pathBoard(netlist: Netlist): PathRow[] {
  const solver = new PointSolver(netlist);
  const values = nominalValues(netlist);
  const bySetting = netlist.circuit.settings.map((setting) => {
    return solver.solve(values, setupState(netlist, { key: "run", setting }), []).amps.slice();
  });
  return netlist.circuit.parts
    .filter(({ kind }) => kind !== "battery" && kind !== "splice")
    .flatMap((part) =>
      piecesOf(netlist, part).map(({ id, branches }) => ({
        id,
        part: part.id,
        amps: bySetting.map((amps) =>
          branches.reduce((most, branch) => Math.max(most, Math.abs(amps[branch] ?? 0)), 0),
        ),
      })),
    )
    .filter(({ amps }) => amps.some((own) => own > leastAmps));
}

/** True if a part carries current in a setting. */
export const carries = (row: PathRow, setting: number): boolean => (row.amps[setting] ?? 0) > leastAmps;

/** What was heard or seen of each setting, key on and while it failed; the last reading counts. */
export function speedWords(readings: readonly Reading[]): Map<string, "none" | "weak" | "normal" | "strong"> {
  return new Map(
    readings.flatMap((reading) =>
      reading.test === "airflow" &&
      reading.key === "run" &&
      reading.state !== "working" &&
      !reading.selectors &&
      reading.setting !== undefined
        ? [[reading.setting, reading.seen] as const]
        : [],
    ),
  );
}

/**
 * Rows that carry current in every dead setting and in none that works.
 * @param settings the circuit's, in its order
 * @returns ids of rows; empty if no setting is dead
 */
export function sharedByDead(
  rows: readonly PathRow[],
  settings: readonly string[],
  words: ReadonlyMap<string, string>,
): string[] {
  const blows = (index: number): boolean => rows.some((row) => carries(row, index));
  const at = (word: string): number[] =>
    settings.flatMap((setting, index) => (words.get(setting) === word && blows(index) ? [index] : []));
  const dead = at("none").filter((index) => index > 0);
  const working = [...at("normal"), ...at("strong")];
  if (dead.length === 0) return [];
  return rows
    .filter(
      (row) => dead.every((index) => carries(row, index)) && !working.some((index) => carries(row, index)),
    )
    .map(({ id }) => id);
}
