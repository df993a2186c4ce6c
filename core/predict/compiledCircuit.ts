import { type CatalogueEntry, catalogue } from "../diagnose/catalogue";
import type { Change } from "../solve/change";
import type { Netlist } from "../solve/netlist";
import { PointSolver } from "../solve/pointSolver";
import { type Setup, setupKey, setupState } from "../solve/setup";
import { SetupTable } from "./setupTable";
import { type VehicleDraw, vehicleDraws } from "./vehicleDraw";

/** A suspect at one size and the table rows its readings come from, by how often each. */
export interface Variant extends CatalogueEntry {
  readonly rows: readonly { readonly row: number; readonly share: number }[];
  /** The parts to replace, as one text: faults with the same text need no telling apart. */
  readonly repair: string;
}

export interface CompileOptions {
  /** Whole vehicles drawn from the tolerances. */
  readonly draws?: number;
  readonly seed?: number;
}

export const defaultDraws = 16;
const defaultSeed = 20;
const mostKept = 600;

/**
 * A circuit made ready for diagnosis: its faults, its drawn vehicles, and what each predicts in every
 * set-up met so far. Tables are made when first needed and kept.
 */
export class CompiledCircuit {
  readonly variants: readonly Variant[];
  readonly draws: readonly VehicleDraw[];
  /** Changes of each table row; row 0 is the healthy circuit. */
  readonly rows: readonly (readonly Change[])[];
  /** Nominal healthy airflow by motor at the top setting, key on. */
  readonly topAirflow: readonly number[];
  private readonly solver: PointSolver;
  private readonly tables = new Map<string, SetupTable>();
  private readonly ohmsColumns = new Map<string, Float64Array>();
  /** The same by the set-up object itself, for looks weighed again and again. */
  private readonly tableOf = new WeakMap<Setup, SetupTable>();
  private readonly kept = new Map<string, unknown>();

  constructor(
    readonly netlist: Netlist,
    options: CompileOptions = {},
  ) {
    this.solver = new PointSolver(netlist);
    this.draws = vehicleDraws(netlist, options.draws ?? defaultDraws, options.seed ?? defaultSeed);
    const rows: (readonly Change[])[] = [[]];
    const rowOf = new Map<string, number>([["[]", 0]]);
    const place = (changes: readonly Change[]): number => {
      const key = JSON.stringify(changes, (_, value: unknown) =>
        value === Number.POSITIVE_INFINITY ? "open" : value,
      );
      const known = rowOf.get(key);
      if (known !== undefined) return known;
      rowOf.set(key, rows.length);
      return rows.push(changes) - 1;
    };
    this.variants = catalogue(netlist).map((entry) => {
      const row = place(entry.fault.changes);
      const share = entry.fault.presentShare;
      return {
        ...entry,
        rows:
          share < 1
            ? [
                { row, share },
                { row: 0, share: 1 - share },
              ]
            : [{ row, share }],
        repair: entry.fault.parts.join("+"),
      };
    });
    this.rows = rows;
    this.topAirflow = this.healthyTop();
  }

  /** The strongest nominal healthy airflow of each motor over the settings. */
  private healthyTop(): number[] {
    const [nominal] = this.draws;
    const top = this.netlist.motors.map(() => 0);
    if (!nominal) return top;
    for (const setting of this.netlist.circuit.settings) {
      const state = setupState(this.netlist, { key: "run", setting });
      const solved = this.solver.solve(nominal.values, state, []);
      top.forEach((best, motor) => {
        top[motor] = Math.max(best, solved.speeds[motor] ?? 0);
      });
    }
    return top;
  }

  /** The table of a set-up, made when first asked for. */
  table(setup: Setup): SetupTable {
    const met = this.tableOf.get(setup);
    if (met) return met;
    const key = setupKey(this.netlist, setup);
    const known = this.tables.get(key);
    if (known) {
      this.tableOf.set(setup, known);
      return known;
    }
    const state = setupState(this.netlist, setup);
    const table = new SetupTable(this.netlist, this.solver, this.rows, this.draws, state);
    this.tables.set(key, table);
    return table;
  }

  /** True when a set-up's table is there already: looks in it cost nothing to weigh. */
  hasTable(setup: Setup): boolean {
    return this.tables.has(setupKey(this.netlist, setup));
  }

  /** Ohms between two nodes by row on the dead circuit, battery off, nominal values; Infinity if open. */
  ohmsBetween(setup: Setup, red: number, black: number): Float64Array {
    const key = `${setupKey(this.netlist, setup)}|${red}|${black}`;
    const known = this.ohmsColumns.get(key);
    if (known) return known;
    const state = setupState(this.netlist, setup, true);
    const [nominal] = this.draws;
    const column = Float64Array.from(this.rows, (changes) => {
      if (!nominal) return 0;
      this.solver.solve(nominal.values, state, changes);
      return this.solver.ohmsBetween(red, black);
    });
    this.ohmsColumns.set(key, column);
    return column;
  }

  /** Keeps what `make` returns under a key; the oldest goes when there are too many. */
  remember<T>(key: string, make: () => T): T {
    if (this.kept.has(key)) return this.kept.get(key) as T;
    const made = make();
    if (this.kept.size >= mostKept) this.kept.delete(this.kept.keys().next().value as string);
    this.kept.set(key, made);
    return made;
  }

  /** Set-ups worth having: key on in every setting, and key off. */
  usualSetups(): Setup[] {
    return [
      ...this.netlist.circuit.settings.map((setting) => ({ key: "run" as const, setting })),
      { key: "off" as const },
    ];
  }

  /**
   * Makes the usual tables ahead of time.
   * @param onProgress called with the share done, 0 to 1; returning false stops
   */
  prepare(onProgress: (share: number) => boolean = () => true): void {
    const setups = this.usualSetups();
    for (const [index, setup] of setups.entries()) {
      this.table(setup);
      if (!onProgress((index + 1) / setups.length)) return;
    }
  }
}
