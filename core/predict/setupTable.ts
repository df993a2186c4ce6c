import type { Change } from "../solve/change";
import type { Netlist } from "../solve/netlist";
import type { PointSolver } from "../solve/pointSolver";
import type { SetupState } from "../solve/setup";
import { lampVolts, testLight } from "../solve/tungstenLamp";
import { lampOdds } from "./eye";
import type { VehicleDraw } from "./vehicleDraw";

/**
 * Everything every fault predicts in one set-up: a row a distinct change of the netlist (row 0 is
 * healthy), a column a drawn vehicle.
 */
export class SetupTable {
  /** Volts by (row, draw, node); NaN where floating. */
  private readonly volts: Float32Array;
  /** Airflow by (row, draw, motor) in rad/s times the airflow per rpm. */
  private readonly airflow: Float32Array;
  /** Ohms from a node to the reference by (row, node), nominal vehicle. */
  private readonly behind: Float32Array;
  private readonly buzz: Uint8Array;
  /** Odds of a test light's four outcomes by (row, draw, node, clip), once asked for; NaN before. */
  private lamp: Float32Array | null = null;

  constructor(
    private readonly netlist: Netlist,
    solver: PointSolver,
    rows: readonly (readonly Change[])[],
    private readonly draws: readonly VehicleDraw[],
    setup: SetupState,
  ) {
    const nodes = netlist.nodeNames.length;
    const cells = rows.length * draws.length;
    this.volts = new Float32Array(cells * nodes);
    this.airflow = new Float32Array(cells * netlist.motors.length);
    this.behind = new Float32Array(rows.length * nodes);
    this.buzz = new Uint8Array(cells);
    const behind = new Float64Array(nodes);
    rows.forEach((changes, row) => {
      draws.forEach((vehicle, draw) => {
        const solved = solver.solve(vehicle.values, setup, changes, draw > 0);
        const cell = row * draws.length + draw;
        for (let node = 0; node < nodes; node++) {
          this.volts[cell * nodes + node] =
            solved.floating[node] === 1 ? Number.NaN : (solved.volts[node] as number);
        }
        for (let motor = 0; motor < netlist.motors.length; motor++) {
          this.airflow[cell * netlist.motors.length + motor] =
            (solved.speeds[motor] as number) * airflowTimes(changes, motor);
        }
        this.buzz[cell] = solved.buzzing.includes(1) ? 1 : 0;
        if (draw === 0) {
          solver.ohmsBehind(behind);
          this.behind.set(behind, row * nodes);
        }
      });
    });
  }

  /** Volts of a node; NaN where it floats, 0 at the reference. */
  voltsAt(row: number, draw: number, node: number): number {
    if (node < 0) return 0;
    const cell = row * this.draws.length + draw;
    return this.volts[cell * this.netlist.nodeNames.length + node] as number;
  }

  /**
   * What a meter's leads show between two nodes: a floating lead takes the other's potential through
   * the meter's own 10 MΩ, so the display reads 0.
   */
  voltsBetween(row: number, draw: number, red: number, black: number): number {
    const volts = this.voltsAt(row, draw, red) - this.voltsAt(row, draw, black);
    return Number.isNaN(volts) ? 0 : volts;
  }

  airflowAt(row: number, draw: number, motor: number): number {
    const cell = row * this.draws.length + draw;
    return this.airflow[cell * this.netlist.motors.length + motor] as number;
  }

  buzzes(row: number, draw: number): boolean {
    return this.buzz[row * this.draws.length + draw] === 1;
  }

  /**
   * Odds that a test light between a node and a battery post is called bright, dim, dark or
   * flickering; kept once computed.
   */
  lightAtBattery(row: number, draw: number, node: number, clip: "+" | "-", out: Float64Array): void {
    const cell = row * this.draws.length + draw;
    const nodes = this.netlist.nodeNames.length + 1;
    this.lamp ??= new Float32Array(this.buzz.length * nodes * 2 * 4).fill(Number.NaN);
    const { lamp } = this;
    const at = ((cell * nodes + node + 1) * 2 + (clip === "+" ? 1 : 0)) * 4;
    if (Number.isNaN(lamp[at])) {
      const other = clip === "+" ? this.netlist.battery.positive : -1;
      this.callLamp(row, draw, this.lampBetween(row, draw, node, other), lamp, at);
    }
    for (let i = 0; i < 4; i++) out[i] = lamp[at + i] as number;
  }

  /** The same between any two nodes. */
  lightBetween(row: number, draw: number, probe: number, clip: number, out: Float64Array): void {
    const odds = new Float32Array(4);
    this.callLamp(row, draw, this.lampBetween(row, draw, probe, clip), odds, 0);
    out.set(odds);
  }

  private callLamp(row: number, draw: number, volts: number, out: Float32Array, at: number): void {
    const vehicle = this.draws[draw] as VehicleDraw;
    lampOdds(volts, vehicle.eyes, this.buzzes(row, draw), out, at);
  }

  /** Volts across a test light between two nodes, behind the ohms each has to the reference. */
  lampBetween(row: number, draw: number, probe: number, clip: number): number {
    const open = this.voltsAt(row, draw, probe) - this.voltsAt(row, draw, clip);
    if (Number.isNaN(open)) return 0;
    return lampVolts(testLight, open, this.seen(row, probe) + this.seen(row, clip));
  }

  private seen(row: number, node: number): number {
    return node < 0 ? 0 : (this.behind[row * this.netlist.nodeNames.length + node] as number);
  }
}

function airflowTimes(changes: readonly Change[], motor: number): number {
  let times = 1;
  for (const change of changes) {
    if (change.type === "airflow" && change.motor === motor) times *= change.times;
  }
  return times;
}
