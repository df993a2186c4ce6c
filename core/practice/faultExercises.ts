import type { Chance } from "../chance/chance";
import { believe, rankedRepairs, repairBelief } from "../diagnose/belief/belief";
import { placeFault } from "../fault/fault";
import type { FaultName } from "../fault/faultId";
import { type Repair, theCar } from "../fault/repair";
import { humpsPerTurn } from "../motor/commutator";
import type { Reading } from "../predict/reading";
import { voltsText } from "../units/wording";
import type { KillerOffered } from "./asked";
import {
  ampsOf,
  type Exercise,
  type ExerciseForm,
  figuresAround,
  plugged,
  posts,
  shuffled,
  someOf,
  topOf,
} from "./exercise";
import type { PracticeCircuit } from "./practiceCase";

/** Ripples per turn, and from them the speed. */
export const rippleOfMotor: ExerciseForm = (_on, chance) => {
  const poles = chance.pick([2, 2, 2, 4]);
  const bars = chance.pick([10, 11, 12, 13, 14, 16, 17, 18, 22]);
  const perTurn = humpsPerTurn(bars, poles);
  if (chance.uniform() < 0.5)
    return {
      asked: { about: "humps-a-turn", bars, poles, perTurn },
      setup: {},
      marked: [],
      ...figuresAround(
        perTurn,
        [bars, 2 * bars, poles * bars, bars / 2, bars + poles],
        0.5,
        (own) => String(Math.round(own)),
        chance,
      ),
      many: false,
    };
  const rpm = 100 * Math.round(chance.between(12, 42));
  const hertz = (rpm / 60) * perTurn;
  return {
    asked: { about: "rpm-from-humps", bars, poles, perTurn, hertz, rpm },
    setup: {},
    marked: [],
    ...figuresAround(
      rpm,
      [2 * rpm, rpm / 2, hertz, (60 * hertz) / bars],
      90,
      (own) => `${Math.round(own)} rpm`,
      chance,
    ),
    many: false,
  };
};

/** What overheats a pack: the fault with the larger current. */
export const whatKilledIt: ExerciseForm = (on, chance) => {
  const { exact } = on;
  const motor = exact.motors[0]?.part.id;
  if (!motor) return null;
  const setup = { key: "run", setting: topOf(on) } as const;
  const healthy = ampsOf(on, setup, motor);
  const times = chance.pick([1.4, 1.6, 1.9]);
  const ground = exact.circuit.parts.find(({ kind }) => kind === "ground")?.id;
  const killers: readonly { id: KillerOffered["id"]; names: readonly FaultName[] }[] = [
    { id: "tight", names: [{ where: motor, mode: "tight", value: times }] },
    { id: "filter", names: [{ where: theCar, mode: "filter-blocked", value: 0.35 }] },
    { id: "brushes", names: [{ where: motor, mode: "worn-brushes", value: 0.5 }] },
    ...(ground ? [{ id: "ground" as const, names: [{ where: ground, mode: "high", value: 0.4 }] }] : []),
  ];
  const causes = killers.flatMap(({ id, names }): KillerOffered[] => {
    const placed = placeFault(exact, names);
    return placed.ok ? [{ id, amps: ampsOf(on, setup, motor, placed.value.changes) }] : [];
  });
  const right = causes.filter(({ amps }) => amps > 1.15 * healthy);
  if (right.length !== 1 || causes.length < 3) return null;
  return {
    asked: {
      about: "killer",
      setting: topOf(on),
      healthyAmps: healthy,
      ground: ground ?? null,
      offered: causes,
    },
    setup,
    marked: [motor],
    answers: shuffled(causes, chance).map(({ id }) => id),
    right: right.map(({ id }) => id),
    many: false,
  };
};

/** Tapping or wiggling changes the fault. */
export const tapAndWiggle: ExerciseForm = (on, chance) => {
  const { compiled, exact } = on;
  const { circuit } = exact;
  const motor = exact.motors[0]?.part.id;
  const plugs = circuit.connectors.map(({ id }) => id);
  if (!motor || plugs.length < 2) return null;
  const at = chance.pick([motor, ...someOf(plugs, 2, chance)]);
  const setting = topOf(on);
  const heard: Reading[] = circuit.settings
    .slice(1)
    .map((own) => ({ test: "airflow", heard: true, key: "run", setting: own, seen: "none" }));
  const tapped: Reading[] = [
    ...heard,
    { test: "history", of: "bumps", seen: "yes", heard: true },
    { test: "tap", at, key: "run", setting, seen: "starts" },
  ];
  const before = repairBelief(compiled, believe(compiled, heard));
  const after = repairBelief(compiled, believe(compiled, tapped));
  const right = singleParts(after)[0];
  if (!right || right.p < 0.5) return null;
  const ranked = singleParts(before);
  const wrong = ranked.map(({ part }) => part).filter((part) => part !== right.part);
  const offered = shuffled([right.part, ...someOf(wrong.slice(0, 5), 3, chance)], chance);
  return {
    asked: {
      about: "moved-and-starts",
      at,
      isMotor: at === motor,
      setting,
      part: right.part,
      pBefore: ranked.find(({ part }) => part === right.part)?.p ?? 0,
      pAfter: right.p,
    },
    setup: { key: "run", setting },
    marked: [at],
    answers: offered,
    right: [right.part],
    many: false,
  };
};

/** Repairs of one part, likeliest first. */
const singleParts = (repairs: ReadonlyMap<Repair, number>): { part: string; p: number }[] =>
  rankedRepairs(repairs).flatMap(([{ parts }, p]) => {
    const [part, more] = parts;
    return part !== undefined && more === undefined ? [{ part, p }] : [];
  });

/** A control module on a command wire, in one setting. */
interface Commanded {
  readonly head: string;
  readonly module: string;
  readonly point: string;
  readonly setting: string;
  readonly volts: number;
}

/** What a control module is asked for, and what that proves. */
export const commandVolts: ExerciseForm = (on, chance) => {
  const head = on.exact.circuit.parts.find((part) => part.kind === "head");
  const module = on.exact.circuit.parts.find((part) => part.kind === "module");
  if (head?.kind !== "head" || module?.kind !== "module" || module.bus || head.bus) return null;
  const setting = chance.pick(on.exact.circuit.settings.slice(1));
  const commanded = {
    head: head.id,
    module: module.id,
    point: plugged(on, `${module.id}.cmd`),
    setting,
    volts: head.commands[setting] ?? 0,
  };
  if (chance.uniform() >= 0.5) return clearedByCommand(on, commanded, chance);
  const others = on.exact.circuit.settings.map((own) => head.commands[own] ?? 0);
  return {
    asked: { about: "command-volts", range: module.commandVolts, ...commanded },
    setup: { key: "run", setting },
    marked: [commanded.point],
    ...figuresAround(commanded.volts, [...shuffled(others, chance), 12.6, 0], 0.2, voltsText, chance),
    many: false,
  };
};

/** What the right command volts clear on a control module that makes no speed. */
function clearedByCommand(on: PracticeCircuit, commanded: Commanded, chance: Chance): Exercise | null {
  const { head, module, point, setting, volts } = commanded;
  const { circuit } = on.exact;
  const { minus, plus } = posts(on);
  const live = { key: "run", setting } as const;
  const seen: Reading[] = [
    ...circuit.settings
      .slice(1)
      .map((own): Reading => ({ test: "airflow", heard: true, key: "run", setting: own, seen: "none" })),
    { test: "light", probe: plugged(on, `${module}.30`), clip: minus, ...live, seen: "bright" },
    { test: "light", probe: plugged(on, `${module}.31`), clip: plus, ...live, seen: "bright" },
    { test: "volts", red: point, black: minus, ...live, volts },
  ];
  const ranked = singleParts(repairBelief(on.compiled, believe(on.compiled, seen)));
  const left = ranked.slice(0, 2).map(({ part }) => part);
  const fuses = circuit.parts.flatMap(({ id, kind }) => (kind === "fuse" ? [id] : []));
  const cleared = [head, ...fuses].filter((id) => !left.includes(id));
  if (left.length < 2 || cleared.length === 0) return null;
  const right = chance.pick(cleared);
  return {
    asked: { about: "cleared-by-command", ...commanded, left: ranked.slice(0, 2) },
    setup: live,
    marked: [point, module],
    answers: shuffled([right, ...left], chance),
    right: [right],
    many: false,
  };
}
