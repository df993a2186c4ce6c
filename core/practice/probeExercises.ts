import type { Change } from "../solve/netlist/change";
import type { LampWord } from "../solve/tungstenLamp";
import { voltsText } from "../units/wording";
import {
  across,
  ampsOf,
  type ExerciseForm,
  figuresAround,
  lightCalled,
  plugged,
  posts,
  shuffled,
  topOf,
} from "./exercise";
import type { PracticeCircuit } from "./practiceCase";

const lights = ["bright", "dim", "dark"] as const;

/** Pins of plugs, back-probed. */
const pins = ({ exact }: PracticeCircuit): string[] =>
  exact.circuit.connectors.flatMap(({ id, pins: own }) => Object.keys(own).map((pin) => `${id}:${pin}`));

/** A test light with its clip on either post, on a sound vehicle. */
export const lightEitherClip: ExerciseForm = (on, chance) => {
  const { plus, minus } = posts(on);
  const { settings } = on.exact.circuit;
  const makes = (): { probe: string; clip: string; setting: string; called: LampWord } => {
    const probe = chance.pick(pins(on));
    const clip = chance.pick([plus, minus]);
    const setting = chance.pick(settings);
    return { probe, clip, setting, called: lightCalled(across(on, { key: "run", setting }, probe, clip)) };
  };
  if (pins(on).length === 0) return null;
  // Every answer equally often, because most points of a car are plain feed or plain ground.
  const wanted = chance.pick(["bright", "dim", "dark"]);
  let own = makes();
  for (let tries = 0; tries < 60 && own.called !== wanted; tries++) own = makes();
  const found = across(on, { key: "run", setting: own.setting }, own.probe, own.clip);
  return {
    asked: {
      about: "light",
      setting: own.setting,
      probe: own.probe,
      toFeed: own.clip === plus,
      called: own.called,
      floats: found.floats,
      volts: Math.abs(found.volts),
      ohms: found.ohms,
    },
    setup: { key: "run", setting: own.setting },
    marked: [own.probe],
    answers: lights,
    right: [own.called],
    many: false,
  };
};

/** A wire in the motor's own path that carries its whole current, and the points at its ends. */
interface LoadJoint {
  readonly index: number;
  readonly id: string;
  readonly ends: readonly [string, string];
}

function loadJoints(on: PracticeCircuit): LoadJoint[] {
  const { exact } = on;
  const setup = { key: "run", setting: topOf(on) } as const;
  const full = ampsOf(on, setup, exact.motors[0]?.part.id ?? "");
  return exact.circuit.wires.flatMap((wire) => {
    const index = exact.branchOf.get(wire.id);
    const amps = ampsOf(on, setup, wire.id);
    if (index === undefined || full < 1 || Math.abs(amps - full) > 0.05 * full) return [];
    return [{ index, id: wire.id, ends: [plugged(on, wire.from), plugged(on, wire.to)] as const }];
  });
}

/** Volts across a bad wire with current. */
export const dropUnderLoad: ExerciseForm = (on, chance) => {
  const [joint] = shuffled(loadJoints(on), chance);
  if (!joint) return null;
  const ohms = chance.pick([0.08, 0.15, 0.25, 0.4]);
  const change: Change = { type: "series", branch: joint.index, ohms };
  const setup = { key: "run", setting: topOf(on) } as const;
  const bad = Math.abs(across(on, setup, joint.ends[0], joint.ends[1], [change]).volts);
  const sound = Math.abs(across(on, setup, joint.ends[0], joint.ends[1]).volts);
  const amps = ampsOf(on, setup, joint.id, [change]);
  const { plus, minus } = posts(on);
  const supply = Math.abs(across(on, setup, plus, minus).volts);
  return {
    asked: {
      about: "drop-under-load",
      wire: joint.id,
      ends: joint.ends,
      setting: topOf(on),
      ohms,
      amps,
      badVolts: bad,
      soundVolts: sound,
    },
    setup,
    marked: [joint.id],
    ...figuresAround(bad, [sound, supply, supply - bad, bad / 4, 2 * bad], 0.3, voltsText, chance),
    many: false,
  };
};

/** The same joint without current: a meter across it shows nothing. */
export const dropWithoutLoad: ExerciseForm = (on, chance) => {
  const motorPlug = on.exact.circuit.connectors.find(({ pins: own }) =>
    Object.values(own).some((terminal) => terminal.startsWith(`${on.exact.motors[0]?.part.id}.`)),
  );
  if (!motorPlug) return null;
  const ohms = chance.pick([0.2, 0.4, 1]);
  const running = { key: "run", setting: topOf(on) } as const;
  const off = { ...running, unplugged: [motorPlug.id] };
  const changeOf = ({ index }: LoadJoint): Change => ({ type: "series", branch: index, ohms });
  // A relay's coil may still draw its small current through a joint, so a joint without any current is chosen.
  const joint = shuffled(loadJoints(on), chance).find(
    (own) => Math.abs(across(on, off, own.ends[0], own.ends[1], [changeOf(own)]).volts) < 0.05,
  );
  if (!joint) return null;
  const change = changeOf(joint);
  const loaded = Math.abs(across(on, running, joint.ends[0], joint.ends[1], [change]).volts);
  const found = across(on, off, joint.ends[0], joint.ends[1], [change]);
  const { plus, minus } = posts(on);
  return {
    asked: {
      about: "drop-without-load",
      wire: joint.id,
      ends: joint.ends,
      plug: motorPlug.id,
      setting: topOf(on),
      ohms,
      loadedVolts: loaded,
    },
    setup: off,
    marked: [joint.id],
    ...figuresAround(
      Math.abs(found.volts),
      [loaded, Math.abs(across(on, running, plus, minus).volts), loaded / 2, 1],
      0.3,
      voltsText,
      chance,
    ),
    many: false,
  };
};

/** Volts that a meter sees and a lamp does not: a feed through thousands of ohms. */
export const ghostVolts: ExerciseForm = (on, chance) => {
  const { exact } = on;
  const { minus } = posts(on);
  const setup = { key: "run", setting: topOf(on) } as const;
  const motor = exact.motors[0]?.part.id ?? "";
  const motorPlug = exact.circuit.connectors.find(({ pins: own }) =>
    Object.values(own).some((terminal) => terminal === `${motor}.+`),
  );
  const pin = plugged(on, `${motor}.+`);
  const fed = Math.abs(across(on, setup, pin, minus).volts) > 5;
  if (!motorPlug || !fed) return null;
  const ohms = chance.pick([4700, 22_000, 68_000]);
  const off = { ...setup, unplugged: [motorPlug.id] };
  // A joint may be on the motor's ground side, so that it is not in the feed.
  const found = shuffled(loadJoints(on), chance)
    .map(({ index }) => across(on, off, pin, minus, [{ type: "series", branch: index, ohms }]))
    .find((own) => Math.abs(own.volts) >= 5 && own.ohms >= 1000 && Number.isFinite(own.ohms));
  if (!found) return null;
  const meter = (found.volts * 1e7) / (1e7 + found.ohms);
  const called = lightCalled(found);
  return {
    asked: {
      about: "ghost-volts",
      plug: motorPlug.id,
      pin,
      meterVolts: Math.abs(meter),
      called,
      ohms: found.ohms,
    },
    setup: off,
    marked: [pin],
    answers: shuffled(["joint", "good", "ground", "motor"], chance),
    right: ["joint"],
    many: false,
  };
};

/** An open ground: its point rises to feed through the load. */
export const floatingGround: ExerciseForm = (on, chance) => {
  const { exact } = on;
  const setup = { key: "run", setting: topOf(on) } as const;
  const { plus, minus } = posts(on);
  const motor = exact.motors[0]?.part.id ?? "";
  const pin = plugged(on, `${motor}.-`);
  const grounds = exact.circuit.parts.flatMap(({ id, kind }) => (kind === "ground" ? [id] : []));
  const lifted = grounds.flatMap((id) => {
    const index = exact.branchOf.get(id);
    if (index === undefined) return [];
    const change: Change = { type: "series", branch: index, ohms: Number.POSITIVE_INFINITY };
    const found = across(on, setup, pin, minus, [change]);
    return found.floats || Math.abs(found.volts) < 6 ? [] : [{ id, change, found }];
  });
  if (lifted.length === 0) return null;
  const own = chance.pick(lifted);
  const toFeed = chance.uniform() < 0.5;
  const clip = toFeed ? plus : minus;
  const called = lightCalled(across(on, setup, pin, clip, [own.change]));
  return {
    asked: {
      about: "ground-off",
      ground: own.id,
      pin,
      setting: topOf(on),
      toFeed,
      called,
      volts: Math.abs(own.found.volts),
    },
    setup,
    marked: [pin, own.id],
    answers: lights,
    right: [called],
    many: false,
  };
};
