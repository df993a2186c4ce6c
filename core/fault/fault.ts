import { mechanicalModes } from "../motor/mechanicalMode";
import { type Parsed, type ProblemCode, quoted, refused } from "../problem/problem";
import type { Change } from "../solve/netlist/change";
import { type Netlist, reference } from "../solve/netlist/netlist";
import { type FaultName, parseFaultId } from "./faultId";
import { theCar } from "./repair";

/** A fault placed in a circuit: its changes to the netlist, and what has to be replaced. */
export interface Fault {
  readonly names: readonly FaultName[];
  /** The part, connector or wire to replace for each name, the cause first. */
  readonly parts: readonly string[];
  readonly changes: readonly Change[];
  /** Share of readings in which the changes are present; 1 unless the fault is intermittent. */
  readonly presentShare: number;
}

interface Effect {
  readonly part: string;
  readonly changes: readonly Change[];
  readonly presentShare?: number;
}

type Outcome = Parsed<Effect>;

const shortOhms = 0.01;

const wrong = (code: ProblemCode, message: string): Outcome => refused([{ code, path: "fault", message }]);

/** Branches that a plain open, high or loose fault acts on: a wire's copper, a pin, a contact, an element. */
function seriesEffect(netlist: Netlist, name: FaultName): Outcome | null {
  const index = netlist.branchOf.get(name.where);
  const branch = index === undefined ? undefined : netlist.branches[index];
  if (index === undefined || !branch) return null;
  const part = branch.owner;
  const series = (ohms: number): Change[] => [{ type: "series", branch: index, ohms }];
  switch (name.mode) {
    case "open":
    case "blown":
      return { ok: true, value: { part, changes: series(Number.POSITIVE_INFINITY) } };
    case "high":
      if (name.value === null) return wrong("missing", `${name.where}:high needs its ohms, as high@1.5`);
      return { ok: true, value: { part, changes: series(name.value) } };
    case "loose":
      if (name.value === null || name.value >= 1)
        return wrong("out-of-range", `${name.where}:loose needs its share below 1, as loose@0.5`);
      return {
        ok: true,
        value: { part, changes: series(Number.POSITIVE_INFINITY), presentShare: name.value },
      };
    default:
      return null;
  }
}

/** Share of readings taken while a chafed wire touches the body (judgement, no source). */
const touchingShare = 0.5;

function wireShort(netlist: Netlist, name: FaultName): Outcome | null {
  const from = netlist.nodeOf.get(`${name.where}/from`);
  if (from === undefined || !netlist.circuit.wires.some(({ id }) => id === name.where)) return null;
  const to = new Map([
    ["to-ground", reference],
    ["chafed", reference],
    ["to-feed", netlist.battery.positive],
  ]).get(name.mode);
  if (to === undefined) return null;
  const presentShare = name.mode === "chafed" ? touchingShare : 1;
  return {
    ok: true,
    value: { part: name.where, changes: [{ type: "bridge", a: from, b: to, ohms: shortOhms }], presentShare },
  };
}

function relayEffect(netlist: Netlist, name: FaultName): Outcome | null {
  const relay = netlist.relays.findIndex(({ part }) => part.id === name.where);
  if (relay < 0) return null;
  const coil = netlist.relays[relay]?.coil ?? 0;
  const changes: Record<string, Change> = {
    "coil-open": { type: "series", branch: coil, ohms: Number.POSITIVE_INFINITY },
    "stuck-open": { type: "relay", relay, held: "released" },
    welded: { type: "relay", relay, held: "pulled" },
  };
  const change = changes[name.mode];
  return change ? { ok: true, value: { part: name.where, changes: [change] } } : null;
}

function motorEffect(netlist: Netlist, name: FaultName): Outcome | null {
  const motor = netlist.motors.findIndex(({ part }) => part.id === name.where);
  const found = netlist.motors[motor];
  if (!found) return null;
  const part = name.where;
  const done = (changes: readonly Change[]): Outcome => ({ ok: true, value: { part, changes } });
  const mechanical = mechanicalModes[name.mode];
  if (mechanical) return done(mechanicalChanges(motor, mechanical));
  const { value } = name;
  switch (name.mode) {
    case "dead-spot":
      return done([{ type: "series", branch: found.branch, ohms: Number.POSITIVE_INFINITY }]);
    case "seized":
      return done([{ type: "motor", motor, change: { mode: "seized" } }]);
    case "tight":
      if (value === null || value <= 1)
        return wrong("out-of-range", `${part}:tight needs how many times the rated amps, as tight@1.5`);
      return done([{ type: "motor", motor, change: { mode: "tight", times: value } }]);
    case "shorted-turns":
      if (value === null || value >= 1)
        return wrong("out-of-range", `${part}:shorted-turns needs a share below 1, as shorted-turns@0.6`);
      return done([{ type: "motor", motor, change: { mode: "shorted-turns", share: value } }]);
    case "worn-brushes":
    case "fades-hot":
      if (value === null) return wrong("missing", `${part}:${name.mode} needs its ohms, as ${name.mode}@0.6`);
      return {
        ok: true,
        value: {
          part,
          changes: [{ type: "motor", motor, change: { mode: "worn-brushes", ohms: value } }],
          presentShare: name.mode === "fades-hot" ? hotShare : 1,
        },
      };
    default:
      return null;
  }
}

function mechanicalChanges(motor: number, mode: (typeof mechanicalModes)[string]): Change[] {
  const changes: Change[] = [];
  if (mode.dragShare > 0)
    changes.push({ type: "motor", motor, change: { mode: "drag", torqueShare: mode.dragShare } });
  if (mode.fanTimes !== 1)
    changes.push({ type: "motor", motor, change: { mode: "fan", times: mode.fanTimes } });
  if (mode.airflowTimes !== 1) changes.push({ type: "airflow", motor, times: mode.airflowTimes });
  return changes;
}

/** Share of readings taken while a part that fails hot is hot (judgement, no source). */
const hotShare = 0.7;

/** A control module or a panel with no output, full output, or always the same output. */
function controlEffect(netlist: Netlist, name: FaultName): Outcome | null {
  const { where, mode, value } = name;
  const module = netlist.modules.findIndex(({ part }) => part.id === where);
  const head = netlist.heads.findIndex(({ part }) => part.id === where);
  if (module < 0 && head < 0) return null;
  if (mode === "stuck" && (value === null || value > 1))
    return wrong("out-of-range", `${where}:stuck needs a share up to 1, as stuck@0.4`);
  const done = (change: Change): Outcome => ({ ok: true, value: { part: where, changes: [change] } });
  if (module >= 0) {
    if (mode === "dead" || mode === "full-on") return done({ type: "module", module, held: mode });
    if (mode === "thermal") {
      const changes: Change[] = [{ type: "module", module, held: "dead" }];
      return { ok: true, value: { part: where, changes, presentShare: hotShare } };
    }
    return mode === "stuck" ? done({ type: "module", module, held: { duty: value ?? 0 } }) : null;
  }
  if (mode === "dead") return done({ type: "head", head, held: "dead" });
  return mode === "stuck" ? done({ type: "head", head, held: { share: value ?? 0 } }) : null;
}

/** Air left through an iced evaporator, and the share of readings taken while it is iced (judgements, no source). */
const icedAir = 0.3;
const icedShare = 0.7;

/** The car's own faults: its filter, which restricts every fan, and what lies behind the fan. */
function carEffect(netlist: Netlist, name: FaultName): Outcome | null {
  if (name.where !== theCar) return null;
  const air = (times: number): Change[] =>
    netlist.motors.map((_, motor) => ({ type: "airflow", motor, times }));
  if (name.mode === "iced")
    return { ok: true, value: { part: theCar, changes: air(icedAir), presentShare: icedShare } };
  if (name.mode !== "filter-blocked" && name.mode !== "duct-blocked") return null;
  const times = name.value;
  if (times === null || times >= 1)
    return wrong("out-of-range", `CAR:${name.mode} needs a share below 1, as ${name.mode}@0.5`);
  // A blocked filter starves the fan, which then needs less torque; behind the fan only the air is missing.
  const fans = netlist.motors.map(
    (_, motor): Change => ({ type: "motor", motor, change: { mode: "fan", times } }),
  );
  return {
    ok: true,
    value: { part: theCar, changes: name.mode === "filter-blocked" ? [...fans, ...air(times)] : air(times) },
  };
}

function batteryEffect(netlist: Netlist, name: FaultName): Outcome | null {
  if (name.where !== netlist.battery.id || name.mode !== "low") return null;
  if (name.value === null) return wrong("missing", `${name.where}:low needs its volts, as low@10.5`);
  return { ok: true, value: { part: name.where, changes: [{ type: "battery", volts: name.value }] } };
}

/** A switch's common contact, in series with whichever output is closed. */
function commonEffect(netlist: Netlist, name: FaultName): Outcome | null {
  const part = netlist.circuit.parts.find(
    (own) => own.kind === "selector" && name.where === `${own.id}.${own.common}`,
  );
  if (!part) return null;
  const outputs = netlist.branches.filter(({ owner }) => owner === part.id).map(({ id }) => id);
  const effects = outputs.map((where) => seriesEffect(netlist, { ...name, where }));
  const [first] = effects;
  if (!first?.ok) return first ?? null;
  const changes = effects.flatMap((effect) => (effect?.ok ? effect.value.changes : []));
  return { ok: true, value: { ...first.value, changes } };
}

/** A bad contact in the socket of a fuse or relay, where the wire ends: `K3/87:high@1.5`. */
function socketEffect(netlist: Netlist, name: FaultName): Outcome | null {
  const [part = "", contact] = name.where.split("/");
  const kind = netlist.circuit.parts.find(({ id }) => id === part)?.kind;
  if (!contact || (kind !== "fuse" && kind !== "relay")) return null;
  const terminal = `${part}.${contact}`;
  const wire = netlist.circuit.wires.find(({ from, to }) => from === terminal || to === terminal);
  if (!wire) return null;
  const effect = seriesEffect(netlist, {
    ...name,
    where: `${wire.id}/${wire.from === terminal ? "from" : "to"}`,
  });
  return effect?.ok ? { ok: true, value: { ...effect.value, part } } : effect;
}

/** Ohms of a contact that is closed (the format's nominal value). */
const closedOhms = 0.005;

/** A switch whose knob turns without its contacts, which stand at one setting, counted from 1. */
function knobEffect(netlist: Netlist, name: FaultName): Outcome | null {
  const part = netlist.circuit.parts.find(({ id }) => id === name.where);
  if (name.mode !== "knob-turns" || part?.kind !== "selector") return null;
  const settings = part.settings ?? netlist.circuit.settings;
  const standsAt = settings[(name.value ?? 0) - 1];
  if (standsAt === undefined)
    return wrong("out-of-range", `${part.id}:knob-turns needs one of its ${settings.length} settings, as @1`);
  const changes = netlist.branches.flatMap(({ a, b, control }, branch): Change[] => {
    if (control?.by !== "selector" || control.part !== part.id) return [];
    const open: Change = { type: "series", branch, ohms: Number.POSITIVE_INFINITY };
    return control.closedIn.has(standsAt) ? [open, { type: "bridge", a, b, ohms: closedOhms }] : [open];
  });
  return { ok: true, value: { part: part.id, changes } };
}

/** Every way a fault may act; the first that knows the id's place and mode is used. */
const effects = [
  carEffect,
  batteryEffect,
  relayEffect,
  motorEffect,
  controlEffect,
  wireShort,
  knobEffect,
  socketEffect,
  commonEffect,
  seriesEffect,
];

function effectOf(netlist: Netlist, name: FaultName): Outcome {
  for (const effect of effects) {
    const outcome = effect(netlist, name);
    if (outcome) return outcome;
  }
  return wrong("no-such-thing", `no fault ${quoted(`${name.where}:${name.mode}`)} in this circuit`);
}

/** Places named faults in a circuit. */
export function placeFault(netlist: Netlist, names: readonly FaultName[]): Parsed<Fault> {
  const placed: Effect[] = [];
  for (const name of names) {
    const outcome = effectOf(netlist, name);
    if (!outcome.ok) return outcome;
    placed.push(outcome.value);
  }
  return {
    ok: true,
    value: {
      names,
      parts: [...new Set(placed.map(({ part }) => part))],
      changes: placed.flatMap(({ changes }) => changes),
      presentShare: Math.min(1, ...placed.map(({ presentShare }) => presentShare ?? 1)),
    },
  };
}

/** Reads a fault id and places it in a circuit. */
export function faultFromId(netlist: Netlist, id: string): Parsed<Fault> {
  const names = parseFaultId(id);
  return names.ok ? placeFault(netlist, names.value) : names;
}
