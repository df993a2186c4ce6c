import type { Change } from "../solve/netlist/change";
import { ampsText, voltsText } from "../units/wording";
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

const lights = [
  { id: "bright", text: "bright" },
  { id: "dim", text: "dim" },
  { id: "dark", text: "dark" },
] as const;

/** Pins of plugs, as they are probed from behind. */
const pins = ({ exact }: PracticeCircuit): string[] =>
  exact.circuit.connectors.flatMap(({ id, pins: own }) => Object.keys(own).map((pin) => `${id}:${pin}`));

/** A test light on either clip, on a sound vehicle. */
export const lightEitherClip: ExerciseForm = (on, chance) => {
  const { plus, minus } = posts(on);
  const { settings } = on.exact.circuit;
  const makes = (): { probe: string; clip: string; setting: string; called: string } => {
    const probe = chance.pick(pins(on));
    const clip = chance.pick([plus, minus]);
    const setting = chance.pick(settings);
    return { probe, clip, setting, called: lightCalled(across(on, { key: "run", setting }, probe, clip)) };
  };
  if (pins(on).length === 0) return null;
  // Every answer as often as another: most points of a car are plain feed or plain ground.
  const wanted = chance.pick(["bright", "dim", "dark"]);
  let own = makes();
  for (let tries = 0; tries < 60 && own.called !== wanted; tries++) own = makes();
  const found = across(on, { key: "run", setting: own.setting }, own.probe, own.clip);
  return {
    question: `A sound vehicle, key on, ${own.setting}. The test light is clipped to ${own.clip === plus ? "feed" : "ground"} and touches ${own.probe}. How does it burn?`,
    setup: { key: "run", setting: own.setting },
    marked: [own.probe],
    answers: lights,
    right: [own.called],
    many: false,
    why: found.floats
      ? `${own.probe} has no way to feed or ground here: it floats, and the light stays dark on either clip.`
      : `Between ${own.probe} and ${own.clip === plus ? "feed" : "ground"} stand ${voltsText(Math.abs(found.volts))} behind ${found.ohms < 1000 ? `${found.ohms.toFixed(1)} Ω` : "thousands of ohms"}: under the light that is ${own.called}.`,
  };
};

/** A wire on the motor's own path that carries its whole current, and the points at its ends. */
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

/** Volts over a bad wire while its current flows. */
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
    question: `${joint.id} has a bad joint of ${ohms} Ω, and the blower runs on ${topOf(on)}, drawing ${ampsText(amps)}. The meter stands from ${joint.ends[0]} to ${joint.ends[1]}. What does it show?`,
    setup,
    marked: [joint.id],
    ...figuresAround(bad, [sound, supply, supply - bad, bad / 4, 2 * bad], 0.3, voltsText, chance),
    many: false,
    why: `The current times the ohms: ${ampsText(amps)} through ${ohms} Ω and the wire's own lose ${voltsText(bad)}. Sound, the same wire loses ${voltsText(sound)}.`,
  };
};

/** The same joint with no current: a meter across it shows nothing. */
export const dropWithoutLoad: ExerciseForm = (on, chance) => {
  const motorPlug = on.exact.circuit.connectors.find(({ pins: own }) =>
    Object.values(own).some((terminal) => terminal.startsWith(`${on.exact.motors[0]?.part.id}.`)),
  );
  if (!motorPlug) return null;
  const ohms = chance.pick([0.2, 0.4, 1]);
  const running = { key: "run", setting: topOf(on) } as const;
  const off = { ...running, unplugged: [motorPlug.id] };
  const changeOf = ({ index }: LoadJoint): Change => ({ type: "series", branch: index, ohms });
  // A relay's coil may go on drawing its little through a joint: one that then carries nothing is asked for.
  const joint = shuffled(loadJoints(on), chance).find(
    (own) => Math.abs(across(on, off, own.ends[0], own.ends[1], [changeOf(own)]).volts) < 0.05,
  );
  if (!joint) return null;
  const change = changeOf(joint);
  const loaded = Math.abs(across(on, running, joint.ends[0], joint.ends[1], [change]).volts);
  const found = across(on, off, joint.ends[0], joint.ends[1], [change]);
  const { plus, minus } = posts(on);
  return {
    question: `${joint.id} has a bad joint of ${ohms} Ω. The motor's plug ${motorPlug.id} is off, the switch on ${topOf(on)}. The meter stands across the joint, ${joint.ends[0]} to ${joint.ends[1]}. What does it show?`,
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
    why: `No current, no drop: with the motor off the joint loses nothing and looks sound. Plugged in it would lose ${voltsText(loaded)}. Joints are measured while their current flows.`,
  };
};

/** Volts a meter sees and a lamp does not: a feed that comes through thousands of ohms. */
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
  // A joint may lie behind the motor: then it is no feed's.
  const found = shuffled(loadJoints(on), chance)
    .map(({ index }) => across(on, off, pin, minus, [{ type: "series", branch: index, ohms }]))
    .find((own) => Math.abs(own.volts) >= 5 && own.ohms >= 1000 && Number.isFinite(own.ohms));
  if (!found) return null;
  const meter = (found.volts * 1e7) / (1e7 + found.ohms);
  const called = lightCalled(found);
  return {
    question: `The motor's plug ${motorPlug.id} is off. A meter of 10 MΩ shows ${voltsText(Math.abs(meter))} at ${pin} to ground; the 3 W light there stays ${called}. What is so?`,
    setup: off,
    marked: [pin],
    answers: shuffled(
      [
        { id: "joint", text: "The feed comes through thousands of ohms: a bad joint before it" },
        { id: "good", text: "The feed is good, the light is broken" },
        { id: "ground", text: "The motor's ground is missing" },
        { id: "motor", text: "The motor is seized" },
      ],
      chance,
    ),
    right: ["joint"],
    many: false,
    why: `Behind ${pin} are ${Math.round(found.ohms / 100) / 10} kΩ. The meter draws a millionth of an amp and loses nothing in them; the light wants a quarter of an amp and loses all. What must carry a load is judged under a load.`,
  };
};

/** A ground that is off: its point is lifted to feed through the load. */
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
    question: `Ground ${own.id} has come off. Key on, ${topOf(on)}; the light is clipped to ${toFeed ? "feed" : "ground"} and touches ${pin}, the motor's minus. How does it burn?`,
    setup,
    marked: [pin, own.id],
    answers: lights,
    right: [called],
    many: false,
    why: `With ${own.id} off no current flows and nothing is lost in the motor: its minus stands at ${voltsText(Math.abs(own.found.volts))}, like its plus. ${toFeed ? "Between feed and feed there is nothing to light it." : `To ground the light burns ${called} through the motor's winding: the dead side of a motor that "has volts" has no ground.`}`,
  };
};
