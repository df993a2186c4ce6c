import { believe, rankedRepairs, repairBelief } from "../diagnose/belief/belief";
import { placeFault } from "../fault/fault";
import { type Repair, theCar } from "../fault/repair";
import { humpsPerTurn } from "../motor/commutator";
import type { Reading } from "../predict/reading";
import { ampsText, listed, percent, voltsText } from "../units/wording";
import {
  ampsOf,
  type ExerciseForm,
  figuresAround,
  plugged,
  posts,
  shuffled,
  someOf,
  topOf,
} from "./exercise";

/** Humps a turn, and from them the speed. */
export const rippleOfMotor: ExerciseForm = (_on, chance) => {
  const poles = chance.pick([2, 2, 2, 4]);
  const bars = chance.pick([10, 11, 12, 13, 14, 16, 17, 18, 22]);
  const perTurn = humpsPerTurn(bars, poles);
  if (chance.uniform() < 0.5)
    return {
      question: `A motor of ${bars} bars and ${poles} poles, one brush a pole. How many humps does its current make in a turn?`,
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
      why: `The least common multiple of ${bars} and ${poles}: ${perTurn}. ${bars % poles === 0 ? "The brushes change bars together." : "The brushes change bars one after the other."}`,
    };
  const rpm = 100 * Math.round(chance.between(12, 42));
  const hertz = (rpm / 60) * perTurn;
  return {
    question: `The humps of a motor of ${bars} bars and ${poles} poles come ${Math.round(hertz)} times a second. How fast does it turn?`,
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
    why: `${bars} bars and ${poles} poles make ${perTurn} humps a turn; ${Math.round(hertz)} a second are ${(hertz / perTurn).toFixed(1)} turns a second, ${rpm} a minute.`,
  };
};

/** What overheats a pack: the fault behind which more current flows. */
export const whatKilledIt: ExerciseForm = (on, chance) => {
  const { exact } = on;
  const motor = exact.motors[0]?.part.id;
  if (!motor) return null;
  const setup = { key: "run", setting: topOf(on) } as const;
  const healthy = ampsOf(on, setup, motor);
  const times = chance.pick([1.4, 1.6, 1.9]);
  const ground = exact.circuit.parts.find(({ kind }) => kind === "ground")?.id;
  const causes = [
    {
      id: "tight",
      text: "a motor that turns heavily",
      names: [{ where: motor, mode: "tight", value: times }],
    },
    {
      id: "filter",
      text: "an air filter full of leaves",
      names: [{ where: theCar, mode: "filter-blocked", value: 0.35 }],
    },
    { id: "brushes", text: "worn brushes", names: [{ where: motor, mode: "worn-brushes", value: 0.5 }] },
    ...(ground
      ? [
          {
            id: "ground",
            text: `a corroded ground ${ground}`,
            names: [{ where: ground, mode: "high", value: 0.4 }],
          },
        ]
      : []),
  ].flatMap(({ id, text, names }) => {
    const placed = placeFault(exact, names);
    return placed.ok ? [{ id, text, amps: ampsOf(on, setup, motor, placed.value.changes) }] : [];
  });
  const right = causes.filter(({ amps }) => amps > 1.15 * healthy);
  if (right.length !== 1 || causes.length < 3) return null;
  return {
    question: `The pack burnt through. Before the new one goes in: which of these would have overheated it?`,
    setup,
    marked: [motor],
    answers: shuffled(causes, chance).map(({ id, text }) => ({ id, text })),
    right: right.map(({ id }) => id),
    many: false,
    why: `Sound, the motor draws ${ampsText(healthy)} on ${topOf(on)}. ${listed(causes.map(({ text, amps }) => `With ${text} it draws ${ampsText(amps)}`))}. Only more current than it was made for burns a pack; a blocked filter lowers the draw and takes the pack's cooling air.`,
  };
};

/** A knock or a wiggle that changes it. */
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
    question: `Dead on every speed, but on some roads it comes back. ${at === motor ? `A knock on ${at}` : `A wiggle at ${at}`} with the key on ${setting}, and it starts. What is likeliest now?`,
    setup: { key: "run", setting },
    marked: [at],
    answers: offered.map((id) => ({ id, text: id })),
    right: [right.part],
    many: false,
    why: `${right.part} went from ${percent(ranked.find(({ part }) => part === right.part)?.p ?? 0)} to ${percent(right.p)}: what comes when it is moved is at what was moved. A part that is through does not come back by a wiggle.`,
  };
};

/** Repairs of one part, likeliest first. */
const singleParts = (repairs: ReadonlyMap<Repair, number>): { part: string; p: number }[] =>
  rankedRepairs(repairs).flatMap(([{ parts }, p]) => {
    const [part, more] = parts;
    return part !== undefined && more === undefined ? [{ part, p }] : [];
  });

/** What a control is asked for, and what that proves. */
export const commandVolts: ExerciseForm = (on, chance) => {
  const head = on.exact.circuit.parts.find((part) => part.kind === "head");
  const module = on.exact.circuit.parts.find((part) => part.kind === "module");
  if (head?.kind !== "head" || module?.kind !== "module" || module.bus || head.bus) return null;
  const settings = on.exact.circuit.settings.slice(1);
  const setting = chance.pick(settings);
  const asked = head.commands[setting] ?? 0;
  const command = plugged(on, `${module.id}.cmd`);
  if (chance.uniform() < 0.5) {
    const others = on.exact.circuit.settings.map((own) => head.commands[own] ?? 0);
    return {
      question: `${head.id} asks ${module.id} for a speed by volts on ${command}: ${module.commandVolts[0]} V is nothing, ${module.commandVolts[1]} V is everything. What stands there on ${setting}?`,
      setup: { key: "run", setting },
      marked: [command],
      ...figuresAround(asked, [...shuffled(others, chance), 12.6, 0], 0.2, voltsText, chance),
      many: false,
      why: `On ${setting} ${head.id} puts ${voltsText(asked)} on the wire. The motor's volts are made by ${module.id}; on the command wire there is never the battery's.`,
    };
  }
  const { minus, plus } = posts(on);
  const speeds: Reading[] = settings.map((own) => ({
    test: "airflow",
    heard: true,
    key: "run",
    setting: own,
    seen: "none",
  }));
  const seen: Reading[] = [
    ...speeds,
    {
      test: "light",
      probe: plugged(on, `${module.id}.30`),
      clip: minus,
      key: "run",
      setting,
      seen: "bright",
    },
    { test: "light", probe: plugged(on, `${module.id}.31`), clip: plus, key: "run", setting, seen: "bright" },
    { test: "volts", red: command, black: minus, key: "run", setting, volts: asked },
  ];
  const ranked = singleParts(repairBelief(on.compiled, believe(on.compiled, seen)));
  const left = ranked.slice(0, 2).map(({ part }) => part);
  const cleared = [
    head.id,
    ...on.exact.circuit.parts.flatMap(({ id, kind }) => (kind === "fuse" ? [id] : [])),
  ].filter((id) => !left.includes(id));
  if (left.length < 2 || cleared.length === 0) return null;
  const right = chance.pick(cleared);
  return {
    question: `No speed works. ${module.id} has feed and ground by the light, and ${voltsText(asked)} stand on ${command} on ${setting}, as they should. Which of these is cleared?`,
    setup: { key: "run", setting },
    marked: [command, module.id],
    answers: shuffled([right, ...left], chance).map((id) => ({ id, text: id })),
    right: [right],
    many: false,
    why: `The right volts on the command wire clear ${head.id} and what feeds it, the light clears feed and ground. Left are ${listed(ranked.slice(0, 2).map(({ part, p }) => `${part} (${percent(p)})`))}: a lamp in the motor's place parts them.`,
  };
};
