import { faultFromId } from "../fault/fault";
import { theCar } from "../fault/repair";
import { rpmOf } from "../motor/motorConstants";
import type { Change } from "../solve/netlist/change";
import type { Netlist } from "../solve/netlist/netlist";
import { type Setup, setupState } from "../solve/netlist/setup";
import { PointSolver } from "../solve/pointSolver";
import { type VehicleSample, vehicleSamples } from "./tables/vehicleSample";

/** A clamp reading: the set-up, the motor's amps, and the volts across it if they were read as well. */
export interface ClampedCurrentDraw {
  readonly setup: Setup;
  readonly amps: number;
  readonly volts?: number | undefined;
}

/** Conditions of a motor or its airflow that its current can show. */
export const motorConditions = [
  "healthy",
  "tight",
  "shorted-turns",
  "worn-brushes",
  "filter-blocked",
] as const;
export type MotorCondition = (typeof motorConditions)[number];

/** One condition, compared with the measured currents. */
export interface ConditionFit {
  readonly condition: MotorCondition;
  /** Its size: times the rated amps, share of the ohms, ohms added, or share of the air; null for healthy. */
  readonly size: number | null;
  /** Odds among the conditions, averaged over sizes. */
  readonly odds: number;
  /** Amps for each clamp reading at the best size, nominal vehicle. */
  readonly amps: readonly number[];
  /** Airflow at the best size as a share of healthy, for each clamp reading. */
  readonly airflow: readonly number[];
}

/** A part in the motor's path that gets hot: an element of a pack, or a pin. */
export interface WarmPart {
  readonly id: string;
  readonly watts: number;
  /** The same with a healthy motor in this set-up, and the hottest it gets with one in any set-up. */
  readonly healthyWatts: number;
  readonly hottestWatts: number;
}

/** One set-up: a healthy motor's current, the measured current, and its effect on the parts in the path. */
export interface CurrentDrawInSetup {
  readonly setup: Setup;
  readonly healthyAmps: { readonly low: number; readonly usual: number; readonly high: number };
  readonly healthyVolts: number;
  readonly healthyRpm: number;
  readonly measuredAmps: number | null;
  readonly warm: readonly WarmPart[];
}

/** A point of the fan's curve: the share of air let through, and the resulting current and power. */
export interface FanPoint {
  readonly airShare: number;
  readonly amps: number;
  readonly rpm: number;
  readonly shaftWatts: number;
}

export interface MotorCurrentDraw {
  readonly motor: string;
  readonly setups: readonly CurrentDrawInSetup[];
  /** Likeliest first; empty if nothing was clamped. */
  readonly fits: readonly ConditionFit[];
  /** The strongest setting while the duct is gradually closed. */
  readonly fanCurve: readonly FanPoint[];
}

const vehicles = 16;
const seed = 20;
/** The clamp's own 3 % + 0.3 A and the meter's 0.5 % + 0.02 V, widened for what the sampled vehicles do not cover. */
const ampsSigma = (amps: number): number => 0.4 + 0.04 * Math.abs(amps);
const voltsSigma = (volts: number): number => 0.1 + 0.01 * Math.abs(volts);

/** Odds before anything is clamped, and the sizes that are tried (judgements, no source). */
const conditionPriors: Readonly<Record<MotorCondition, number>> = {
  healthy: 0.5,
  tight: 0.2,
  "shorted-turns": 0.08,
  "worn-brushes": 0.12,
  "filter-blocked": 0.1,
};
const sizes: Readonly<Record<MotorCondition, readonly number[]>> = {
  healthy: [],
  tight: [1.2, 1.35, 1.5, 1.7, 2, 2.4],
  "shorted-turns": [0.85, 0.75, 0.65, 0.55, 0.45],
  "worn-brushes": [0.1, 0.2, 0.4, 0.7, 1.2],
  "filter-blocked": [0.8, 0.65, 0.5, 0.35, 0.2],
};
const fanShares = [1, 0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3, 0.2, 0.1];

function changesOf(
  netlist: Netlist,
  motor: string,
  condition: MotorCondition,
  size: number | null,
): readonly Change[] {
  if (size === null) return [];
  const where = condition === "filter-blocked" ? theCar : motor;
  const fault = faultFromId(netlist, `${where}:${condition}@${size}`);
  if (!fault.ok) throw new RangeError(`${where}:${condition}@${size} is no fault of this circuit`);
  return fault.value.changes;
}

/** Solves a motor's set-ups under any condition. */
class MotorSolver {
  private readonly solver: PointSolver;
  private readonly draws: readonly VehicleSample[];
  private readonly branch: number;
  private readonly index: number;

  constructor(
    private readonly netlist: Netlist,
    readonly motor: string,
  ) {
    this.solver = new PointSolver(netlist);
    this.draws = vehicleSamples(netlist, vehicles, seed);
    this.branch = netlist.branchOf.get(motor) ?? -1;
    this.index = netlist.motors.findIndex(({ part }) => part.id === motor);
  }

  private nodeVolts(volts: Float64Array, end: "+" | "-"): number {
    const node = this.netlist.nodeOf.get(`${this.motor}.${end}`) ?? -1;
    return node < 0 ? 0 : (volts[node] as number);
  }

  /** Amps, volts and speed of the motor in one sampled vehicle, and amps of every branch. */
  at(setup: Setup, changes: readonly Change[], sample = 0) {
    const { values } = this.draws[sample] as VehicleSample;
    const solved = this.solver.solve(values, setupState(this.netlist, setup), changes);
    const airTimes = changes.reduce(
      (times, change) =>
        change.type === "airflow" && change.motor === this.index ? times * change.times : times,
      1,
    );
    const speed = solved.speeds[this.index] ?? 0;
    return {
      amps: solved.amps[this.branch] ?? 0,
      volts: this.nodeVolts(solved.volts, "+") - this.nodeVolts(solved.volts, "-"),
      speed,
      air: speed * airTimes,
      branchAmps: solved.amps,
      ohms: solved.ohms,
    };
  }

  /** Natural logarithm of the likelihood of the currents under a condition, averaged over whole vehicles. */
  evidence(samples: readonly ClampedCurrentDraw[], changes: readonly Change[]): number {
    const logs = this.draws.map((_, sample) =>
      samples.reduce((sum, { setup, amps, volts }) => {
        const own = this.at(setup, changes, sample);
        const off = (amps - own.amps) / ampsSigma(own.amps);
        const offVolts = volts === undefined ? 0 : (volts - own.volts) / voltsSigma(own.volts);
        return sum - 0.5 * (off * off + offVolts * offVolts) - Math.log(ampsSigma(own.amps));
      }, 0),
    );
    const most = Math.max(...logs);
    return most + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - most), 0) / logs.length);
  }

  healthyAmps(setup: Setup): CurrentDrawInSetup["healthyAmps"] {
    const amps = this.draws.map((_, sample) => this.at(setup, [], sample).amps);
    const sorted = [...amps].sort((a, b) => a - b);
    return { low: sorted[0] ?? 0, usual: amps[0] ?? 0, high: sorted.at(-1) ?? 0 };
  }
}

/** Elements and pins that carry a share of the motor's current. */
function warmBranches(netlist: Netlist): { id: string; branch: number }[] {
  const packs = new Set(netlist.circuit.parts.flatMap(({ id, kind }) => (kind === "resistor" ? [id] : [])));
  return netlist.branches.flatMap(({ id, owner, spread }, branch) =>
    (packs.has(owner) && spread === "element") || id.includes(":") ? [{ id, branch }] : [],
  );
}

/**
 * Compares a motor's measured current with this circuit's prediction for a healthy motor and for each condition a
 * clamp can identify, and computes its effect on the pack's elements and the pins (watts go with the square of the
 * current).
 * @param clamped amps measured, with their set-ups
 * @param engine whether the listed speeds are with the engine running
 * @throws RangeError if the circuit has no such motor
 */
export function motorCurrentDraw(
  netlist: Netlist,
  motor: string,
  clamped: readonly ClampedCurrentDraw[],
  engine = false,
): MotorCurrentDraw {
  if (!netlist.motors.some(({ part }) => part.id === motor)) throw new RangeError(`no motor ${motor}`);
  const solver = new MotorSolver(netlist, motor);
  const speeds: Setup[] = netlist.circuit.settings.slice(1).map((setting) => ({
    key: "run",
    setting,
    ...(engine ? { engine } : {}),
  }));
  const setups = [
    ...speeds,
    ...clamped.flatMap(({ setup }) => (speeds.some((speed) => sameSetup(speed, setup)) ? [] : [setup])),
  ].filter((setup, index, all) => all.findIndex((other) => sameSetup(other, setup)) === index);
  const warm = warmBranches(netlist);
  const heat = ({ branchAmps, ohms }: Flow, branch: number, times = 1): number =>
    ((branchAmps[branch] ?? 0) * times) ** 2 * (ohms[branch] ?? 0);
  const hottest = new Map<number, number>();
  const kept = setups.map((setup) => {
    const state = solver.at(setup, []);
    // The solver returns its own arrays and overwrites them.
    const own = { ...state, branchAmps: state.branchAmps.slice(), ohms: state.ohms.slice() };
    for (const { branch } of warm) hottest.set(branch, Math.max(hottest.get(branch) ?? 0, heat(own, branch)));
    return own;
  });
  const rows = setups.map((setup, i): CurrentDrawInSetup => {
    const state = kept[i] as (typeof kept)[0];
    const measured = clamped.filter((sample) => sameSetup(sample.setup, setup)).map(({ amps }) => amps);
    const measuredAmps = measured.at(-1) ?? null;
    const times = measuredAmps === null || state.amps === 0 ? 1 : measuredAmps / state.amps;
    return {
      setup,
      healthyAmps: solver.healthyAmps(setup),
      healthyVolts: state.volts,
      healthyRpm: rpmOf(state.speed),
      measuredAmps,
      warm: warm
        .filter(({ branch }) => Math.abs(state.branchAmps[branch] ?? 0) > carries * Math.abs(state.amps))
        .map(({ id, branch }) => ({
          id,
          watts: heat(state, branch, times),
          healthyWatts: heat(state, branch),
          hottestWatts: hottest.get(branch) ?? 0,
        })),
    };
  });
  return {
    motor,
    setups: rows,
    fits: fitsOf(solver, netlist, clamped),
    fanCurve: fanCurve(solver, netlist, speeds),
  };
}

interface Flow {
  readonly branchAmps: Float64Array;
  readonly ohms: Float64Array;
}

/** A branch with less than this share of the motor's current is not in its path. */
const carries = 0.05;

const sameSetup = (a: Setup, b: Setup): boolean => JSON.stringify(plain(a)) === JSON.stringify(plain(b));

const plain = ({ key = "off", engine = false, setting = "", selectors = {}, unplugged = [] }: Setup) => [
  key,
  engine,
  setting,
  selectors,
  [...unplugged].sort(),
];

function fitsOf(
  solver: MotorSolver,
  netlist: Netlist,
  clamped: readonly ClampedCurrentDraw[],
): ConditionFit[] {
  if (clamped.length === 0) return [];
  const tried = motorConditions.map((condition) => {
    const options = condition === "healthy" ? [null] : sizes[condition];
    const logs = options.map((size) =>
      solver.evidence(clamped, changesOf(netlist, solver.motor, condition, size)),
    );
    const most = Math.max(...logs);
    const size = options[logs.indexOf(most)] ?? null;
    const mean = most + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - most), 0) / logs.length);
    return { condition, size, log: mean + Math.log(conditionPriors[condition]) };
  });
  const most = Math.max(...tried.map(({ log }) => log));
  const total = tried.reduce((sum, { log }) => sum + Math.exp(log - most), 0);
  return tried
    .map(({ condition, size, log }) => {
      const changes = changesOf(netlist, solver.motor, condition, size);
      const own = clamped.map(({ setup }) => {
        const { amps, air } = solver.at(setup, changes);
        const healthy = solver.at(setup, []).speed;
        return { amps, airflow: healthy > 0 ? air / healthy : 0 };
      });
      return {
        condition,
        size,
        odds: Math.exp(log - most) / total,
        amps: own.map(({ amps }) => amps),
        airflow: own.map(({ airflow }) => airflow),
      };
    })
    .sort((a, b) => b.odds - a.odds);
}

/**
 * The fan's power curve at the strongest setting. A blocked duct lowers a centrifugal fan's torque, so the motor draws
 * less and turns faster while less air arrives (fan characteristic, any fan handbook; torque taken in proportion to
 * the air).
 */
function fanCurve(solver: MotorSolver, netlist: Netlist, speeds: readonly Setup[]): FanPoint[] {
  const top = speeds.reduce<{ setup: Setup; speed: number } | null>((best, setup) => {
    const { speed } = solver.at(setup, []);
    return best === null || speed > best.speed ? { setup, speed } : best;
  }, null);
  const constants = netlist.motors.find(({ part }) => part.id === solver.motor);
  if (!top || top.speed <= 0 || !constants) return [];
  return fanShares.map((share) => {
    const { amps, speed, volts, air } = solver.at(
      top.setup,
      share === 1 ? [] : changesOf(netlist, solver.motor, "filter-blocked", share),
    );
    const { ratedVolts, stallAmps } = constants.part;
    // Power that does not heat the winding goes to the shaft.
    const shaftWatts = volts * amps - (amps * amps * ratedVolts) / stallAmps;
    return { airShare: air / top.speed, amps, rpm: rpmOf(speed), shaftWatts };
  });
}
