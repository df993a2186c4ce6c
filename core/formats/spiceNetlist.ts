import type { MotorConstants } from "../motor/motorConstants";
import { changedMotor } from "../motor/motorConstants";
import type { SolvedState } from "../solve/devices/solvedState";
import type { Change } from "../solve/netlist/change";
import type { Netlist, NetModule } from "../solve/netlist/netlist";
import { type Setup, type SetupState, setupState } from "../solve/netlist/setup";
import { nominalValues, type Values } from "../solve/netlist/values";
import { jumperOhms, PointSolver } from "../solve/pointSolver";
import { loadLamp, ratedAmps } from "../solve/tungstenLamp";

/** An ngspice netlist of one operating point, with the spice node of each of our nodes. */
export interface SpiceNetlist {
  readonly text: string;
  /** Spice node number by our node; floating nodes are left out. */
  readonly nodes: ReadonlyMap<number, number>;
}

/** The input for the lines of one netlist. */
interface Sheet {
  readonly netlist: Netlist;
  readonly values: Values;
  readonly state: SetupState;
  readonly solved: SolvedState;
  readonly changes: readonly Change[];
  /** Spice node; -1 if the node floats. */
  readonly at: (node: number) => number;
}

/** Speed (rad/s) above which static friction is fully present; below it, friction holds the shaft nearly still. */
const creepSpeed = 1e-3;

/**
 * Writes an operating point as an ngspice netlist: resistances as R, the battery as V in series with its R, motors and
 * control modules as behavioural sources (a motor's speed and a module's duty are node voltages), the load lamp by its
 * law. Switching devices (relays, wake-up, panels) are written in the states Airway found.
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
  const sheet = { netlist, values, state, solved, changes, at };
  const lines = [
    ...netlist.branches.flatMap((_, index) => branchLines(sheet, index)),
    ...bridgeLines(sheet),
    ...netlist.modules.flatMap((module, index) => moduleLines(sheet, module, index)),
    ...lampLines(sheet),
  ];
  const names = [...netlist.nodeOf].flatMap(([name, node]) =>
    nodes.has(node) ? [`* node ${nodes.get(node)} = ${name}`] : [],
  );
  return { text: [`* ${netlist.circuit.id}`, ...names, ...lines, ...control, ""].join("\n"), nodes };
}

const control = [".options reltol=1e-6 abstol=1e-12 vntol=1e-9 gmin=1e-14 itl1=500", ".op", ".end"];

function branchLines(sheet: Sheet, index: number): string[] {
  const { netlist, solved, state, at } = sheet;
  const branch = netlist.branches[index];
  if (!branch) return [];
  const ohms = solved.ohms[index] ?? Number.POSITIVE_INFINITY;
  const [a, b] = [at(branch.a), at(branch.b)];
  if (state.closed[index] === 0 || !Number.isFinite(ohms) || a < 0 || b < 0) return [];
  const plain = [`R${index} ${a} ${b} ${ohms} $ ${branch.id}`];
  if (index === netlist.battery.branch) return batteryLines(sheet, a, ohms);
  const { control } = branch;
  switch (control?.by) {
    case "motor":
      return motorLines(control.index, a, b, ohms, motorUnder(sheet, control.index));
    case "module":
      return [];
    case "head":
      return isOn(sheet, "head", control.index)
        ? [
            `VH${control.index} h${control.index} ${b} ${commandVolts(sheet, control.index)}`,
            `R${index} ${a} h${control.index} ${ohms}`,
          ]
        : [];
    case "relay":
      return isOn(sheet, "relay", control.relay) === (control.closedWhen === "pulled") ? plain : [];
    default:
      return plain;
  }
}

function isOn({ netlist, solved }: Sheet, kind: string, index: number): boolean {
  const device = netlist.devices.findIndex((one) => one.kind === kind && one.index === index);
  return solved.on[device] === 1;
}

function batteryLines({ changes, state, values }: Sheet, a: number, ohms: number): string[] {
  const low = changes.find((change) => change.type === "battery");
  const rest = state.source === "charging" ? values.chargingVolts : values.restVolts;
  return [`VG emf 0 ${low?.volts ?? rest}`, `RG emf ${a} ${ohms}`];
}

function commandVolts({ netlist, state, changes }: Sheet, head: number): number {
  const stuck = changes.find((change) => change.type === "head" && change.head === head);
  if (stuck?.type !== "head" || stuck.held === "dead") return state.commands[head] ?? 0;
  const commands = Object.values(netlist.heads[head]?.part.commands ?? {});
  const [low, high] = [Math.min(...commands), Math.max(...commands)];
  return low + stuck.held.share * (high - low);
}

function bridgeLines({ state, changes, at }: Sheet): string[] {
  const bridges = [
    ...state.jumpers.map((jumper) => ({ ...jumper, ohms: jumperOhms })),
    ...changes.filter((change) => change.type === "bridge"),
  ];
  return bridges.flatMap(({ a, b, ohms }, index) =>
    at(a) >= 0 && at(b) >= 0 ? [`RB${index} ${at(a)} ${at(b)} ${ohms}`] : [],
  );
}

function motorUnder({ netlist, values, changes }: Sheet, motor: number): MotorConstants {
  const rated = netlist.motors[motor]?.part;
  let constants = values.motors[motor] as MotorConstants;
  for (const change of changes) {
    if (change.type === "motor" && change.motor === motor && rated)
      constants = changedMotor(constants, rated, change.change);
  }
  return constants;
}

const volts = (a: number, b: number): string => `(v(${a})-v(${b}))`.replaceAll("v(0)", "0");

/** Current (V − k ω) / R, with ω as the voltage of a node on which all torques balance. */
function motorLines(index: number, a: number, b: number, ohms: number, motor: MotorConstants): string[] {
  if (motor.held) return [`RM${index} ${a} ${b} ${ohms}`];
  const speed = `v(w${index})`;
  const amps = `((${volts(a, b)}-${motor.k}*${speed})/${ohms})`;
  const friction = `${motor.friction}*min(1,max(-1,${speed}/${creepSpeed}))`;
  const load = `${motor.viscous}*${speed}+${motor.fan}*${speed}*abs(${speed})`;
  return [
    `BM${index} ${a} ${b} I=${amps}`,
    `BW${index} 0 w${index} I=${motor.k}*${amps}-(${friction})-(${load})`,
    `RW${index} w${index} 0 1e9`,
  ];
}

/** A module's duty as a node voltage that follows its command, and its output stage in the present mode. */
function moduleLines(sheet: Sheet, module: NetModule, index: number): string[] {
  const { netlist, solved, values, changes, at } = sheet;
  const form = solved.stages[index];
  const stage = netlist.branches[module.stage];
  const own = values.modules[index];
  if (form === undefined || form === "open" || !stage || !own) return [];
  const onOhms = Math.max(1e-6, solved.ohms[module.stage] ?? 0);
  const held = changes.find((change) => change.type === "module" && change.module === index);
  const [a, b] = [at(stage.a), at(stage.b)];
  if (held?.type === "module" && held.held === "full-on") return [`RA${index} ${a} ${b} ${onOhms}`];
  const asked = `(${volts(at(module.command), at(module.ground))}-(${own.zeroVolts}))/(${own.fullVolts - own.zeroVolts})`;
  const stuck = held?.type === "module" && typeof held.held === "object" ? String(held.held.duty) : null;
  const duty = `v(d${index})`;
  const lines = [`BD${index} d${index} 0 V=${stuck ?? `min(1,max(0,${asked}))`}`];
  if (module.part.drive === "linear")
    return [
      ...lines,
      `VA${index} ${a} s${index} 0`,
      `BA${index} s${index} ${b} V=max((1-${duty})*${volts(at(module.feed), at(module.ground))},i(VA${index})*${onOhms})`,
    ];
  // PWM: the motor's legs are duty × supply apart, and the supply delivers duty × the motor's amps.
  const [feed, ground] = [at(module.feed), at(module.ground)];
  const share = `${duty}*${volts(feed, ground)}-${duty}*${onOhms}*i(VA${index})`;
  const legs =
    module.part.side === "low"
      ? [`VA${index} ${a} s${index} 0`, `BA${index} ${feed} s${index} V=${share}`]
      : [`VA${index} s${index} ${b} 0`, `BA${index} s${index} ${ground} V=${share}`];
  return [...lines, ...legs, `BF${index} ${feed} ${ground} I=${duty}*i(VA${index})`];
}

/** The load lamp by the law of `tungstenLamp`. */
function lampLines({ state, at }: Sheet): string[] {
  if (!state.lamp) return [];
  const [a, b] = [at(state.lamp.a), at(state.lamp.b)];
  if (a < 0 || b < 0) return [];
  const share = `(abs${volts(a, b)}/${loadLamp.ratedVolts})`;
  return [`BL ${a} ${b} I=${ratedAmps(loadLamp)}*sgn(${volts(a, b)})*min(13*${share},(${share}+1e-12)^0.55)`];
}
