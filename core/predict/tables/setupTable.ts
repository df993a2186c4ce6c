import type { Change } from "../../solve/netlist/change";
import type { Netlist } from "../../solve/netlist/netlist";
import type { SetupState } from "../../solve/netlist/setup";
import type { HealthyNetwork, PointSolver, SolvedState } from "../../solve/pointSolver";
import { roughLampVolts, testLight } from "../../solve/tungstenLamp";
import { lampOdds } from "./eye";
import type { VehicleSample } from "./vehicleSample";

/** A fault's changes in each sampled vehicle. */
export type RowChanges = readonly (readonly Change[])[];

/** The numbers of a fully solved table, for transfer from a worker to another thread. */
export interface TableParts {
  readonly volts: Float32Array;
  readonly speed: Float32Array;
  readonly amps: Float32Array;
  readonly behind: Float32Array;
  readonly buzz: Uint8Array;
}

/**
 * The predictions of every fault in one set-up: a row for each distinct change to the netlist (row 0 is healthy), a
 * column for each sampled vehicle. A row is solved on first use.
 */
export class SetupTable {
  /** Volts by (node, row, sample), so that one test reads neighbouring cells; NaN if floating. */
  private volts: Float32Array;
  /** Radians a second by (motor, row, sample). */
  private speed: Float32Array;
  /** Airflow per rpm as a share of the healthy fan's, by (motor, row, sample). */
  private readonly airflowTimes: Float32Array;
  /** Amps by (clamped branch, row, sample). */
  private amps: Float32Array;
  /** Index of each wire's and motor's branch among the clamped ones. */
  private readonly clamped: Int32Array;
  /** The clamped branches in order. */
  private readonly clamps: Int32Array;
  /** Ohms from a node to the reference by (node, row), nominal vehicle. */
  private behind: Float32Array;
  private buzz: Uint8Array;
  private readonly solved: Uint8Array;
  private readonly cells: number;
  /** Amps of every branch of the healthy circuit, by (sample, branch). */
  private readonly healthyAmps: Float64Array;
  /** Devices that are on in the healthy nominal vehicle. */
  private readonly healthyOn: Uint8Array;
  private readonly scratch: Float64Array;
  /** The healthy network by sample, kept until every row is solved. */
  private networks: (HealthyNetwork | undefined)[] = [];
  private left: number;

  constructor(
    private readonly netlist: Netlist,
    private readonly solver: PointSolver,
    private readonly rows: readonly RowChanges[],
    private readonly draws: readonly VehicleSample[],
    private readonly setup: SetupState,
  ) {
    const nodes = netlist.nodeNames.length;
    const motors = netlist.motors.length;
    // The rows are an odd number apart, so that the same row of many nodes does not compete for the same cache lines.
    const cells = (rows.length | 1) * draws.length;
    this.clamps = Int32Array.from(
      netlist.branches.flatMap(({ spread }, branch) =>
        spread === "wire" || spread === "winding" ? [branch] : [],
      ),
    );
    this.clamped = new Int32Array(netlist.branches.length).fill(-1);
    for (const [place, branch] of this.clamps.entries()) this.clamped[branch] = place;
    this.volts = new Float32Array(cells * nodes);
    this.speed = new Float32Array(cells * motors);
    this.airflowTimes = new Float32Array(cells * motors);
    this.amps = new Float32Array(cells * this.clamps.length);
    this.behind = new Float32Array(rows.length * nodes);
    this.buzz = new Uint8Array(cells);
    this.cells = cells;
    this.left = rows.length;
    this.solved = new Uint8Array(rows.length);
    this.healthyOn = new Uint8Array(netlist.devices.length);
    this.healthyAmps = new Float64Array(draws.length * netlist.branches.length);
    this.scratch = new Float64Array(nodes);
    this.airflowTimes.fill(1);
    for (const [row, byDraw] of rows.entries())
      for (const [sample, changes] of byDraw.entries())
        for (const change of changes)
          if (change.type === "airflow") {
            const cell = change.motor * cells + row * draws.length + sample;
            this.airflowTimes[cell] = (this.airflowTimes[cell] as number) * change.times;
          }
  }

  /**
   * Solves the rows not yet solved.
   * @param onProgress called from time to time with the share done; returning false stops
   * @returns false if it was stopped
   */
  complete(onProgress: (share: number) => boolean = () => true): boolean {
    for (let row = 0; row < this.rows.length; row++) {
      if (this.solved[row] === 0) this.solveRow(row);
      if (row % rowsPerReport === rowsPerReport - 1 && !onProgress(row / this.rows.length)) return false;
    }
    return true;
  }

  /**
   * Its numbers.
   * @throws RangeError unless every row is solved
   */
  parts(): TableParts {
    if (this.left > 0) throw new RangeError(`${this.left} rows of this table are not solved yet`);
    const { volts, speed, amps, behind, buzz } = this;
    return { volts, speed, amps, behind, buzz };
  }

  /** Takes over the numbers of the same table solved elsewhere. */
  adopt({ volts, speed, amps, behind, buzz }: TableParts): void {
    [this.volts, this.speed, this.amps, this.behind, this.buzz] = [volts, speed, amps, behind, buzz];
    this.solved.fill(1);
    this.left = 0;
    this.networks = [];
  }

  private solveRow(row: number): void {
    if (row > 0 && this.solved[0] === 0) this.solveRow(0);
    this.solved[row] = 1;
    this.left -= 1;
    const { draws: samples, solver, setup, scratch } = this;
    const byDraw = this.rows[row] ?? [];
    let devicesStand = row > 0;
    let last: HealthyNetwork | null = null;
    solver.readAmpsOf(row === 0 ? null : this.clamps);
    for (let sample = 0; sample < samples.length; sample++) {
      const changes = byDraw[sample] ?? [];
      if (sample > 0 && devicesStand && this.isIdle(changes, sample)) {
        const from = sample;
        while (sample + 1 < samples.length && this.isIdle(byDraw[sample + 1] ?? [], sample + 1)) sample += 1;
        this.copyHealthy(row, from, sample + 1);
        continue;
      }
      const { values } = samples[sample] as VehicleSample;
      const network = this.networks[sample] ?? solver.healthyNetwork(values, setup);
      this.networks[sample] = network;
      solver.standLike(network, last);
      last = network;
      // The first vehicle's devices find their states starting from off, because what could hold itself in must not
      // start held in.
      const aim = sample > 0 ? "rough-as-before" : "rough";
      const solved = solver.solveOn(network, changes, aim) ?? solver.solve(values, setup, changes, aim);
      this.keep(row * samples.length + sample, solved);
      if (row === 0) this.healthyAmps.set(solved.amps, sample * solved.amps.length);
      if (sample > 0) continue;
      if (row === 0) this.healthyOn.set(solved.on);
      else devicesStand = solved.on.every((on, device) => on === this.healthyOn[device]);
      solver.ohmsBehind(scratch);
      const rowCount = this.rows.length;
      for (let node = 0; node < scratch.length; node++)
        this.behind[node * rowCount + row] = scratch[node] as number;
    }
    solver.readAmpsOf(null);
    if (this.left === 0) this.networks = [];
  }

  /**
   * True if a change cannot have any effect: ohms added where the healthy vehicle carries no current, or a change to a
   * motor without current (the compensation theorem). What an open cuts off still floats. A panel or control module
   * that only senses its feed may go to sleep, so the device states must be those of the healthy vehicle.
   */
  private isIdle(changes: readonly Change[], sample: number): boolean {
    const [only] = changes;
    if (changes.length !== 1 || !only) return false;
    const branch =
      only.type === "series"
        ? only.branch
        : only.type === "motor"
          ? (this.netlist.motors[only.motor]?.branch ?? -1)
          : -1;
    if (branch < 0) return false;
    const amps = this.healthyAmps[sample * this.netlist.branches.length + branch] as number;
    return Math.abs(amps) < idleAmps;
  }

  /** Copies the healthy cells of some vehicles; what floats in the nominal vehicle floats here too. */
  private copyHealthy(row: number, from: number, to: number): void {
    const { cells, volts } = this;
    const start = row * this.draws.length;
    const copy = (kept: Float32Array | Uint8Array, place: number): void => {
      kept.copyWithin(place * cells + start + from, place * cells + from, place * cells + to);
    };
    for (let node = 0; node < this.netlist.nodeNames.length; node++) {
      if (Number.isNaN(volts[node * cells + start]))
        volts.fill(Number.NaN, node * cells + start + from, node * cells + start + to);
      else copy(volts, node);
    }
    for (let motor = 0; motor < this.netlist.motors.length; motor++) copy(this.speed, motor);
    for (let clamp = 0; clamp < this.clamps.length; clamp++) copy(this.amps, clamp);
    copy(this.buzz, 0);
  }

  private keep(cell: number, solved: SolvedState): void {
    const { netlist, clamps, cells } = this;
    const nodes = netlist.nodeNames.length;
    for (let node = 0; node < nodes; node++)
      this.volts[node * cells + cell] =
        solved.floating[node] === 1 ? Number.NaN : (solved.volts[node] as number);
    for (let motor = 0; motor < netlist.motors.length; motor++)
      this.speed[motor * cells + cell] = solved.speeds[motor] as number;
    for (let place = 0; place < clamps.length; place++)
      this.amps[place * cells + cell] = solved.amps[clamps[place] as number] as number;
    this.buzz[cell] = solved.buzzing.includes(1) ? 1 : 0;
  }

  /** Volts of a node; NaN if it floats, 0 at the reference. */
  voltsAt(row: number, sample: number, node: number): number {
    if (node < 0) return 0;
    if (this.solved[row] === 0) this.solveRow(row);
    const cell = row * this.draws.length + sample;
    return this.volts[node * this.cells + cell] as number;
  }

  /**
   * What a meter shows between two nodes. A floating lead takes the other lead's potential through the meter's own 10
   * MΩ, so the display reads 0.
   */
  voltsBetween(row: number, sample: number, red: number, black: number): number {
    const volts = this.voltsAt(row, sample, red) - this.voltsAt(row, sample, black);
    return Number.isNaN(volts) ? 0 : volts;
  }

  /** Radians a second of a motor. */
  speedAt(row: number, sample: number, motor: number): number {
    if (this.solved[row] === 0) this.solveRow(row);
    const cell = row * this.draws.length + sample;
    return this.speed[motor * this.cells + cell] as number;
  }

  /** Airflow of a motor's fan, as the speed in radians a second of a healthy fan with the same airflow. */
  airflowAt(row: number, sample: number, motor: number): number {
    const cell = row * this.draws.length + sample;
    const times = this.airflowTimes[motor * this.cells + cell] as number;
    return times * this.speedAt(row, sample, motor);
  }

  /** Amps of a wire's or motor's branch; 0 for others. */
  ampsAt(row: number, sample: number, branch: number): number {
    if (this.solved[row] === 0) this.solveRow(row);
    const place = this.clamped[branch] as number;
    if (place < 0) return 0;
    return this.amps[place * this.cells + row * this.draws.length + sample] as number;
  }

  buzzes(row: number, sample: number): boolean {
    if (this.solved[row] === 0) this.solveRow(row);
    return this.buzz[row * this.draws.length + sample] === 1;
  }

  /** Odds that a test light between two nodes is called bright, dim, dark or flickering. */
  lightOdds(row: number, sample: number, probe: number, clip: number, out: Float64Array): void {
    const vehicle = this.draws[sample] as VehicleSample;
    lampOdds(this.lampBetween(row, sample, probe, clip), vehicle.eyes, this.buzzes(row, sample), out, 0);
  }

  /**
   * Adds a test light's outcomes over many cells to joint weights of outcome and repair.
   * @param joint indexed by outcome times `repairs` plus repair
   */
  addLight(cells: RowCells, probe: number, clip: number, joint: Float64Array, repairs: number): void {
    const { volts, behind, solved, draws: samples, buzz } = this;
    const out = lightRoom;
    const drawCount = samples.length;
    const rowCount = this.rows.length;
    const [probeAt, clipAt] = [probe * this.cells, clip * this.cells];
    for (let i = 0; i < cells.weight.length; i++) {
      const row = cells.row[i] as number;
      if (solved[row] === 0) this.solveRow(row);
      const sample = cells.draw[i] as number;
      const cell = row * drawCount + sample;
      const open =
        (probe < 0 ? 0 : (volts[probeAt + cell] as number)) -
        (clip < 0 ? 0 : (volts[clipAt + cell] as number));
      const ohms =
        (probe < 0 ? 0 : (behind[probe * rowCount + row] as number)) +
        (clip < 0 ? 0 : (behind[clip * rowCount + row] as number));
      const lit = Number.isNaN(open) ? 0 : roughLampVolts(testLight, open, ohms);
      const { eyes } = samples[sample] as VehicleSample;
      lampOdds(lit, eyes, buzz[cell] === 1, out, 0);
      const weight = cells.weight[i] as number;
      const at = cells.repair[i] as number;
      joint[at] = (joint[at] as number) + weight * (out[0] as number);
      const dim = at + repairs;
      joint[dim] = (joint[dim] as number) + weight * (out[1] as number);
      const dark = dim + repairs;
      joint[dark] = (joint[dark] as number) + weight * (out[2] as number);
      const flickers = dark + repairs;
      joint[flickers] = (joint[flickers] as number) + weight * (out[3] as number);
    }
  }

  /** Fills in what a meter shows between two nodes in many cells. */
  fillVolts(cells: RowCells, red: number, black: number, out: Float64Array): void {
    const { volts, solved } = this;
    const drawCount = this.draws.length;
    const [redAt, blackAt] = [red * this.cells, black * this.cells];
    for (let i = 0; i < cells.weight.length; i++) {
      const row = cells.row[i] as number;
      if (solved[row] === 0) this.solveRow(row);
      const cell = row * drawCount + (cells.draw[i] as number);
      const between =
        (red < 0 ? 0 : (volts[redAt + cell] as number)) - (black < 0 ? 0 : (volts[blackAt + cell] as number));
      out[i] = Number.isNaN(between) ? 0 : between;
    }
  }

  /** Volts across a test light between two nodes, in series with each node's ohms to the reference. */
  lampBetween(row: number, sample: number, probe: number, clip: number): number {
    const open = this.voltsAt(row, sample, probe) - this.voltsAt(row, sample, clip);
    if (Number.isNaN(open)) return 0;
    return roughLampVolts(testLight, open, this.seen(row, probe) + this.seen(row, clip));
  }

  private seen(row: number, node: number): number {
    if (node >= 0 && this.solved[row] === 0) this.solveRow(row);
    return node < 0 ? 0 : (this.behind[node * this.rows.length + row] as number);
  }
}

/** Cells of tables: a row and a sampled vehicle, its repair, and its weight. */
export interface RowCells {
  readonly row: Int32Array;
  readonly draw: Int32Array;
  readonly repair: Int32Array;
  readonly weight: Float64Array;
}

const lightRoom = new Float64Array(4);

const rowsPerReport = 64;

/** Amps below which a branch carries no current. */
const idleAmps = 1e-7;
