import type { Motor } from "../../circuit/parts/index";
import { type CatalogueEntry, catalogue, changesAt } from "../../fault/catalogue";
import { type Repair, RepairList } from "../../fault/repair";
import type { Change } from "../../solve/netlist/change";
import type { Netlist } from "../../solve/netlist/netlist";
import { type Setup, setupKey, setupState } from "../../solve/netlist/setup";
import { type HealthyNetwork, PointSolver } from "../../solve/pointSolver";
import { type Moment, type RowShare, rowsAt } from "../moment";
import { type RowChanges, SetupTable } from "./setupTable";
import { type VehicleSample, vehicleSamples } from "./vehicleSample";

/** A suspect at one size, and the table rows of its readings with their frequencies. */
export interface Variant extends CatalogueEntry {
  /** The table row of the fault itself. */
  readonly row: number;
  readonly rows: readonly RowShare[];
  /** Its repair; faults with the same repair need not be separated. */
  readonly repair: Repair;
}

export interface CompileOptions {
  /** Number of whole vehicles sampled from the tolerances. */
  readonly samples?: number;
  readonly seed?: number;
}

/** Used in place of a variant's index for a vehicle without a fault. */
export const healthyVariant = -1;
const healthyRows: Variant["rows"] = [{ row: 0, share: 1 }];

const healthy: readonly Change[] = [];

/** A set-up with the key on. */
export interface LiveSetup {
  readonly key: "run";
  readonly setting: string;
  readonly selectors?: Record<string, string>;
}

/** A motor slower than this share of its top speed counts as stopped. */
const audible = 0.05;

export const defaultSamples = 16;
const defaultSeed = 20;

/**
 * A circuit compiled for diagnosis: its faults, its sampled vehicles, and what each predicts in every set-up used so
 * far. Tables are made on first use and kept.
 */
export class CompiledCircuit {
  readonly variants: readonly Variant[];
  /** Every repair of its faults, starting with the one for a cause outside the list. */
  readonly repairs: readonly Repair[];
  /** Each variant's repair, as an index into `repairs`. */
  readonly repairOf: Int32Array;
  readonly samples: readonly VehicleSample[];
  /** Changes of each table row by sampled vehicle; row 0 is the healthy circuit. */
  readonly rows: readonly RowChanges[];
  /** Nominal healthy speed of each motor at its strongest setting, in radians a second. */
  readonly topSpeed: readonly number[];
  /** Set-ups with the key on in which a healthy motor turns, the weakest first. */
  private readonly running: readonly LiveSetup[];
  /** Nobody knows the values of its parts, so that figures are expected to differ more. */
  readonly isGuessed: boolean;
  private readonly solver: PointSolver;
  private readonly tables = new Map<string, SetupTable>();
  private readonly ohmsColumns = new Map<string, Float64Array>();
  /** The same by the set-up object itself, for tests that are weighed again and again. */
  private readonly tableOf = new WeakMap<Setup, SetupTable>();
  /** Views of this circuit by moment, made on first use. They share its tables. */
  private readonly moments = new Map<Moment, CompiledCircuit>([["usual", this]]);

  constructor(
    readonly netlist: Netlist,
    options: CompileOptions = {},
  ) {
    this.solver = new PointSolver(netlist);
    this.isGuessed = netlist.circuit.wiring === "assumed";
    this.samples = vehicleSamples(netlist, options.samples ?? defaultSamples, options.seed ?? defaultSeed);
    const rows: RowChanges[] = [this.samples.map(() => healthy)];
    const rowOf = new Map<string, number>();
    const rowFor = (entry: CatalogueEntry): number => {
      const key = JSON.stringify([entry.fault.changes, entry.bands], (_, value: unknown) =>
        value === Number.POSITIVE_INFINITY ? "open" : value,
      );
      const known = rowOf.get(key);
      if (known !== undefined) return known;
      rowOf.set(key, rows.length);
      const plain = entry.bands.every((band) => band === null);
      return (
        rows.push(
          this.samples.map(({ severity }) =>
            plain ? entry.fault.changes : changesAt(netlist, entry, severity),
          ),
        ) - 1
      );
    };
    const repairs = new RepairList();
    this.variants = catalogue(netlist).map((entry) => {
      const row = rowFor(entry);
      return {
        ...entry,
        row,
        rows: rowsAt(row, entry.fault, "usual"),
        repair: repairs.of(entry.fault.parts),
      };
    });
    this.rows = rows;
    this.repairs = repairs.all;
    const place = new Map(this.repairs.map((repair, index) => [repair, index]));
    this.repairOf = Int32Array.from(this.variants, ({ repair }) => place.get(repair) ?? 0);
    const speeds = this.liveSetups().map((setup) => ({ setup, speeds: this.healthySpeeds(setup) }));
    this.topSpeed = netlist.motors.map((_, motor) =>
      Math.max(0, ...speeds.map((live) => live.speeds[motor] ?? 0)),
    );
    this.running = speeds
      .filter((live) => live.speeds.some((speed, motor) => speed > audible * (this.topSpeed[motor] ?? 0)))
      .map(({ setup }) => setup);
  }

  private healthySpeeds(setup: Setup): number[] {
    const [nominal] = this.samples;
    if (!nominal) return [];
    return [...this.solver.solve(nominal.values, setupState(this.netlist, setup), []).speeds];
  }

  /**
   * The same circuit as readings of a moment see it: each suspect's fault is there as often as it is then. Everything
   * but the suspects' rows is shared.
   */
  at(moment: Moment): CompiledCircuit {
    const known = this.moments.get(moment);
    if (known) return known;
    const variants = this.variants.map((own) => ({ ...own, rows: rowsAt(own.row, own.fault, moment) }));
    const made: CompiledCircuit = Object.assign(Object.create(this) as CompiledCircuit, { variants });
    this.moments.set(moment, made);
    return made;
  }

  /** Table rows of a suspect's readings; those of a vehicle without a fault for `healthyVariant`. */
  rowsOf(variant: number): Variant["rows"] {
    return this.variants[variant]?.rows ?? healthyRows;
  }

  /** Key on in every setting, and in every position of a second switch. */
  liveSetups(): LiveSetup[] {
    const { settings, parts } = this.netlist.circuit;
    const own = parts.flatMap((part) =>
      part.kind === "selector" && part.settings
        ? part.settings.slice(1).map((setting) => ({ [part.id]: setting }))
        : [],
    );
    return [
      ...settings.map((setting) => ({ key: "run" as const, setting })),
      ...own.map((selectors) => ({ key: "run" as const, setting: settings[0] ?? "off", selectors })),
    ];
  }

  /**
   * Live set-ups worth testing in: all of them if each speed has a path of its own; off, the weakest, the middle and
   * the strongest if a panel only asks for more or less.
   */
  probingSetups(): readonly LiveSetup[] {
    const live = this.liveSetups();
    if (this.netlist.heads.length === 0) return live;
    const running = this.running.filter(({ selectors }) => !selectors);
    const kept = [running[0], running[Math.floor(running.length / 2)], running.at(-1)];
    return live.filter(
      (setup, index) =>
        index === 0 || setup.selectors || kept.some((one) => one === setup || one?.setting === setup.setting),
    );
  }

  /** The live set-ups in which a healthy motor turns. */
  runningSetups(): readonly LiveSetup[] {
    return this.running;
  }

  /** The table of a set-up, made on first use. */
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
    const table = new SetupTable(this.netlist, this.solver, this.rows, this.samples, state);
    this.tables.set(key, table);
    return table;
  }

  /**
   * Ohms between two nodes on the dead circuit with the battery disconnected, by row and sampled vehicle; Infinity if
   * not connected. Parts are nominal, and each vehicle has its own size of the fault. A cell is solved on first use.
   */
  ohmsBetween(setup: Setup, red: number, black: number): (row: number, sample: number) => number {
    const key = `${setupKey(this.netlist, setup)}|${red}|${black}`;
    const count = this.samples.length;
    const known = this.ohmsColumns.get(key) ?? new Float64Array(this.rows.length * count).fill(Number.NaN);
    this.ohmsColumns.set(key, known);
    const state = setupState(this.netlist, setup, true);
    let network: HealthyNetwork | undefined;
    const solved = (changes: readonly Change[]): number => {
      const [nominal] = this.samples;
      if (!nominal) return 0;
      network ??= this.solver.healthyNetwork(nominal.values, state);
      if (!this.solver.solveOn(network, changes)) this.solver.solve(nominal.values, state, changes);
      return this.solver.ohmsBetween(red, black);
    };
    const at = (row: number, sample: number): number => {
      const cell = row * count + sample;
      const met = known[cell] as number;
      if (!Number.isNaN(met)) return met;
      const bySample = this.rows[row] ?? [];
      // A fault of one size for all vehicles, or one that makes no difference here, is solved once.
      const once = sample > 0 && (bySample[sample] === bySample[0] || at(row, 0) === at(0, 0));
      const ohms = once ? at(row, 0) : solved(bySample[sample] ?? healthy);
      known[cell] = ohms;
      return ohms;
    };
    return at;
  }

  /** Set-ups of most tests: the live ones, and key off with the switch on its strongest setting. */
  usualSetups(): Setup[] {
    return [...this.liveSetups(), { key: "off" as const, setting: this.topSetting() }];
  }

  /** Motors that a lamp or a pair of leads can replace. */
  brushedMotors(): Motor[] {
    return this.netlist.motors.map(({ part }) => part).filter(({ brushless }) => !brushless);
  }

  topSetting(): string {
    const { settings } = this.netlist.circuit;
    return settings.at(-1) ?? "off";
  }

  /**
   * Makes the usual tables in advance.
   * @param onProgress called with the share done, 0 to 1; returning false stops
   */
  prepare(onProgress: (share: number) => boolean = () => true): void {
    const setups = this.usualSetups();
    for (const [index, setup] of setups.entries()) {
      const going = this.table(setup).complete((share) => onProgress((index + share) / setups.length));
      if (!going || !onProgress((index + 1) / setups.length)) return;
    }
  }
}
