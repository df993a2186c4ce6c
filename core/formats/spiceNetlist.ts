import type { MotorConstants } from "../motor/motorConstants";
import { changedMotor } from "../motor/motorConstants";
import type { Change } from "../solve/change";
import type { Netlist } from "../solve/netlist";
import { PointSolver } from "../solve/pointSolver";
import { type Setup, setupState } from "../solve/setup";
import { nominalValues } from "../solve/values";

/** An ngspice netlist of one operating point, and which spice node each of our nodes became. */
export interface SpiceNetlist {
  readonly text: string;
  /** Spice node number by our node; floating nodes are left out. */
  readonly nodes: ReadonlyMap<number, number>;
}

/** Static friction acts fully above this speed (rad/s); below, it holds the shaft nearly still. */
const creepSpeed = 1e-3;

/**
 * Writes an operating point as an ngspice netlist: resistances as R, the battery as V behind its own R,
 * motors as behavioural sources with their speed as a node voltage, relays as they settle.
 */
export function spiceNetlist(netlist: Netlist, setup: Setup, changes: readonly Change[] = []): SpiceNetlist {
  const values = nominalValues(netlist);
  const state = setupState(netlist, setup);
  const solved = new PointSolver(netlist).solve(values, state, changes);
  const nodes = new Map<number, number>();
  netlist.nodeNames.forEach((_, node) => {
    if (solved.floating[node] === 0) nodes.set(node, nodes.size + 1);
  });
  const at = (node: number): number => (node < 0 ? 0 : (nodes.get(node) ?? -1));
  const motors = new Map(netlist.motors.map(({ branch }, index) => [branch, index]));
  const lines: string[] = [];
  const add = (index: number, a: number, b: number, ohms: number, id: string): void => {
    const motor = motors.get(index);
    if (index === netlist.battery.branch) {
      const low = changes.find((change) => change.type === "battery");
      const rest = state.source === "charging" ? values.chargingVolts : values.restVolts;
      lines.push(`VG emf 0 ${low?.volts ?? rest}`, `RG emf ${at(a)} ${ohms}`);
    } else if (motor === undefined) lines.push(`R${index} ${at(a)} ${at(b)} ${ohms} $ ${id}`);
    else lines.push(...motorLines(motor, at(a), at(b), ohms, motorUnder(netlist, motor, changes)));
  };
  netlist.branches.forEach((branch, index) => {
    const relay = branch.control?.by === "relay" ? branch.control : null;
    const ohms = solved.ohms[index] ?? Number.POSITIVE_INFINITY;
    const open = state.closed[index] === 0 || !Number.isFinite(ohms) || at(branch.a) < 0 || at(branch.b) < 0;
    const wanted = relay?.closedWhen === "pulled" ? 1 : 0;
    const released = relay !== null && solved.pulled[relay.relay] !== wanted;
    if (!open && !released) add(index, branch.a, branch.b, ohms, branch.id);
  });
  const bridges = [
    ...state.jumpers.map((jumper) => ({ ...jumper, ohms: 0.02 })),
    ...changes.filter((change) => change.type === "bridge"),
  ];
  bridges.forEach(({ a, b, ohms }, index) => {
    if (at(a) >= 0 && at(b) >= 0) lines.push(`RB${index} ${at(a)} ${at(b)} ${ohms}`);
  });
  const names = [...nodes].map(([node, number]) => `* node ${number} = ${netlist.nodeNames[node]}`);
  return {
    text: [`* ${netlist.circuit.id}`, ...names, ...lines, ...control, ""].join("\n"),
    nodes,
  };
}

const control = [".options reltol=1e-6 abstol=1e-12 vntol=1e-9 gmin=1e-14 itl1=500", ".op", ".end"];

function motorUnder(netlist: Netlist, motor: number, changes: readonly Change[]): MotorConstants {
  const rated = netlist.motors[motor]?.part;
  let constants = nominalValues(netlist).motors[motor] as MotorConstants;
  for (const change of changes) {
    if (change.type === "motor" && change.motor === motor && rated)
      constants = changedMotor(constants, rated, change.change);
  }
  return constants;
}

/** Current (V − k ω) / R, and ω as the voltage of a node on which all torques balance. */
function motorLines(index: number, a: number, b: number, ohms: number, motor: MotorConstants): string[] {
  if (motor.held) return [`RM${index} ${a} ${b} ${ohms}`];
  const across = `(v(${a})-v(${b}))`.replaceAll("v(0)", "0");
  const speed = `v(w${index})`;
  const amps = `((${across}-${motor.k}*${speed})/${ohms})`;
  const friction = `${motor.friction}*min(1,max(-1,${speed}/${creepSpeed}))`;
  const load = `${motor.viscous}*${speed}+${motor.fan}*${speed}*abs(${speed})`;
  return [
    `BM${index} ${a} ${b} I=${amps}`,
    `BW${index} 0 w${index} I=${motor.k}*${amps}-(${friction})-(${load})`,
    `RW${index} w${index} 0 1e9`,
  ];
}
