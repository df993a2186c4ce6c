import type { z } from "zod";
import { type Circuit, type Connector, circuitSchema, type Place, type Wire } from "../circuit/circuit";
import type { Part } from "../circuit/parts/index";
import type { ResistorElement } from "../circuit/parts/resistor";
import { idFromName, namedAs } from "../circuit/writtenName";
import { usualSteps } from "./resistorSteps";
import { answered, type TraceAnswers, usualCoilGround } from "./traceAnswer";

/** The names of a circuit. */
export const circuitNameSchema = circuitSchema.pick({ id: true, title: true, steering: true });
export type CircuitName = z.infer<typeof circuitNameSchema>;

/** A wire's usual size and colour by what it carries, always marked as assumed. */
const wireKinds = {
  main: { colour: "RD", mm2: 6, metres: 0.8 },
  blower: { colour: "OG", mm2: 4, metres: 0.8 },
  speed: { colour: "YE", mm2: 2.5, metres: 0.8 },
  key: { colour: "BK", mm2: 2.5, metres: 1 },
  small: { colour: "GY", mm2: 0.75, metres: 1 },
  ground: { colour: "BN", mm2: 4, metres: 0.6 },
  smallGround: { colour: "BN", mm2: 0.75, metres: 0.6 },
} as const;

/** Collects a circuit's parts and wires during the trace. */
class Draft {
  readonly parts: Part[] = [];
  readonly wires: Wire[] = [];
  readonly connectors: Connector[] = [];
  readonly places: Place[] = [];

  part<P extends Part>(part: P, known = true): void {
    this.parts.push(known ? part : { ...part, assumed: true });
  }

  wire(kind: keyof typeof wireKinds, from: string, to: string): void {
    this.wires.push({ id: `W${this.wires.length + 1}`, from, to, ...wireKinds[kind], assumed: true });
  }

  plug(label: string, title: string, part: string, terminals: readonly string[]): void {
    const pins = terminals.map((terminal, index) => [String(index + 1), `${part}.${terminal}`] as const);
    this.connectors.push({ title, ...namedAs(label), pins: Object.fromEntries(pins) });
  }

  place(id: string, minutes: number, parts: readonly string[]): void {
    const known = new Set([...this.parts, ...this.connectors].map((item) => item.id));
    this.places.push({ id, minutes, parts: parts.filter((part) => known.has(part)) });
  }
}

/** The questions whose answers decide what is connected to what. */
const wiringQuestions = ["feed", "relay", "control", "hands", "top", "link", "signal"] as const;

/** A usual relay (common practice, no source). */
const relay = (id: string) =>
  ({ id, kind: "relay", coilOhms: 85, pullInVolts: 7.5, contactOhms: 0.004 }) as const;

/**
 * The circuit of a trace: the answers, and usual values for the rest. Parts and wires with values nobody gave are
 * marked as assumed.
 * @returns a circuit whose references all resolve, unless two given labels are equal
 */
export function traceCircuit({ id, title, steering }: CircuitName, answers: TraceAnswers): Circuit {
  const draft = new Draft();
  const speeds = answered(answers, "speeds").value;
  const settings = ["off", ...Array.from({ length: speeds }, (_, index) => String(index + 1))];
  const grounds = answered(answers, "grounds");
  draft.part({ id: "G1", kind: "battery", restVolts: 12.6, chargingVolts: 14.2, ohms: 0.012 }, false);
  draft.part({ ...namedAs(grounds.value.blower), kind: "ground", ohms: 0.002 }, grounds.known);
  const supply = supplyOf(draft, answers);
  const motor = answered(answers, "motor");
  draft.part(
    {
      id: "M1",
      kind: "motor",
      ratedVolts: 13.5,
      ratedAmps: motor.value.amps,
      stallAmps: Math.round(motor.value.amps * 4),
      ratedRpm: 3200,
    },
    motor.known,
  );
  if (answered(answers, "control").value === "resistor") resistorControl(draft, answers, supply, settings);
  else electronicControl(draft, answers, supply, settings);
  finish(draft, answers);
  return {
    format: "airway-circuit",
    version: 1,
    id,
    title,
    ...(steering ? { steering } : {}),
    ...(wiringQuestions.some((question) => answers[question] === null) ? { wiring: "assumed" as const } : {}),
    settings,
    parts: draft.parts,
    connectors: draft.connectors,
    wires: draft.wires,
    places: draft.places,
  };
}

/** The blower's feed, and a feed that is live with the key. */
interface Supply {
  readonly blower: string;
  readonly keyed: () => string;
}

/** From the battery to the blower's feed: fuse, key, relay. */
function supplyOf(draft: Draft, answers: TraceAnswers): Supply {
  const fuse = answered(answers, "fuse");
  const { value: feed } = answered(answers, "feed");
  const { value: panel } = answered(answers, "panel");
  const electronic = answered(answers, "control").value !== "resistor";
  const coil = answered(answers, "coil");
  const withRelay = answered(answers, "relay").value === "yes";
  draft.part({ id: "J1", kind: "splice" });
  const blowerFuse = namedAs(fuse.value.id);
  draft.part({ ...blowerFuse, kind: "fuse", amps: fuse.value.amps }, fuse.known);
  draft.wire("main", "G1.+", "J1.s");
  /** The key's own output; the key switch exists only if something is connected to it. */
  const key = (): string => {
    if (!draft.parts.some(({ kind }) => kind === "ignition")) {
      draft.part({ id: "S1", kind: "ignition", closes: { off: [], acc: [], run: ["15"] } });
      draft.wire("key", "J1.s", "S1.30");
    }
    return "S1.15";
  };
  if (feed === "always") draft.wire("main", "J1.s", `${blowerFuse.id}.in`);
  else draft.wire("blower", key(), `${blowerFuse.id}.in`);
  const keyFuses = new Set<string>();
  const keyFuse = (label: string, amps: number, known: boolean): string => {
    const { id, ...title } = namedAs(label);
    if (!keyFuses.has(id)) {
      keyFuses.add(id);
      draft.part({ id, ...title, kind: "fuse", amps }, known);
      draft.wire("small", key(), `${id}.in`);
    }
    return `${id}.out`;
  };
  if (withRelay) {
    const { fuse: coilFuse, amps } = coil.value;
    const { id: name, ...title } = namedAs(coil.value.relay);
    const given = answered(answers, "grounds").value.coil;
    const { id: ground, ...groundTitle } = namedAs(given ?? usualCoilGround);
    if (!draft.parts.some((part) => part.id === ground))
      draft.part(
        { id: ground, ...groundTitle, kind: "ground", ohms: 0.002 },
        given !== undefined && answered(answers, "grounds").known,
      );
    // Nobody is asked for the relay's ohms and volts.
    draft.part({ ...relay(name), ...title }, false);
    draft.wire("blower", `${blowerFuse.id}.out`, `${name}.30`);
    draft.wire("small", keyFuse(coilFuse, amps, coil.known), `${name}.86`);
    draft.wire("smallGround", `${name}.85`, `${ground}.31`);
  }
  return {
    blower: withRelay ? `${idFromName(coil.value.relay)}.87` : `${blowerFuse.id}.out`,
    keyed: () =>
      electronic
        ? keyFuse(panel.keyFuse, panel.keyAmps, answered(answers, "panel").known)
        : keyFuse(coil.value.fuse, coil.value.amps, coil.known),
  };
}

/** A switch that selects a tap of a resistor pack, on either side of the motor. */
function resistorControl(
  draft: Draft,
  answers: TraceAnswers,
  supply: Supply,
  settings: readonly string[],
): void {
  const speeds = settings.length - 1;
  const ground = answered(answers, "hands").value === "ground";
  const top = answered(answers, "top").value;
  const groundPoint = `${idFromName(answered(answers, "grounds").value.blower)}.31`;
  const plugs = answered(answers, "plugs").value;
  const lows = top === "pack" ? speeds : speeds - 1;
  const lowTerminals = Array.from({ length: lows }, (_, index) => `L${index + 1}`);
  draft.part({
    id: "S2",
    kind: "selector",
    common: "C",
    closes: Object.fromEntries(
      settings.map((setting, index) => [setting, index === 0 ? [] : [index <= lows ? `L${index}` : "H"]]),
    ),
  });
  // The motor's terminal on the switch's side, and how a wire runs from feed to ground there.
  const own = ground ? "M1.-" : "M1.+";
  const run = (kind: keyof typeof wireKinds, motorSide: string, switchSide: string): void =>
    ground ? draft.wire(kind, motorSide, switchSide) : draft.wire(kind, switchSide, motorSide);
  if (ground) {
    draft.wire("blower", supply.blower, "M1.+");
    draft.wire("ground", "S2.C", groundPoint);
  } else {
    draft.wire("blower", supply.blower, "S2.C");
    draft.wire("ground", "M1.-", groundPoint);
  }
  draft.plug(plugs.motor, "motor plug", "M1", ["+", "-"]);
  draft.plug(plugs.switch, "speed switch plug", "S2", [
    "C",
    ...lowTerminals,
    ...(lows < speeds ? ["H"] : []),
  ]);
  const out = packOf(draft, answers, lows);
  draft.plug(plugs.control, "resistor plug", "R1", [...lowTerminals.map((_, i) => `T${i + 1}`), out]);
  lowTerminals.forEach((terminal, index) => void run("speed", `R1.T${index + 1}`, `S2.${terminal}`));
  if (top === "pack") run("blower", own, `R1.${out}`);
  else if (top === "switch") {
    draft.part({ id: "J2", kind: "splice" });
    run("blower", own, "J2.s");
    run("blower", "J2.s", `R1.${out}`);
    run("blower", "J2.s", "S2.H");
  } else {
    draft.part(relay("K9"), false);
    run("blower", own, "K9.30");
    run("blower", "K9.87a", `R1.${out}`);
    topSpeedRelay(draft, supply, ground, groundPoint);
  }
}

/** The coil and the working contact of the relay through which the top speed bypasses the pack. */
function topSpeedRelay(draft: Draft, supply: Supply, groundSide: boolean, ground: string): void {
  if (groundSide) {
    draft.wire("ground", "K9.87", ground);
    draft.wire("small", supply.keyed(), "K9.86");
    draft.wire("small", "K9.85", "S2.H");
  } else {
    draft.wire("blower", supply.blower, "K9.87");
    draft.wire("small", "S2.H", "K9.86");
    draft.wire("smallGround", "K9.85", ground);
  }
}

/** The pack's elements in series from the lowest speed's tap to its common end; returns that end's name. */
function packOf(draft: Draft, answers: TraceAnswers, lows: number): string {
  const link = answered(answers, "link").value;
  const { steps } = answered(answers, "ohms").value;
  const usual = usualSteps(lows, answered(answers, "motor").value.amps);
  const given = usual.map((_, index) => steps[index] ?? null);
  const out = `T${lows + 1}`;
  const elements = usual.map((ohms, index): ResistorElement => {
    const from = index === 0 && link === "lowest" ? "N" : `T${index + 1}`;
    const to = index === lows - 1 && link === "all" ? "N" : `T${index + 2}`;
    return { id: `e${index + 1}`, from, to, ohms: given[index] ?? ohms };
  });
  if (link === "all") elements.push({ id: "link", from: "N", to: out, thermalLink: true });
  if (link === "lowest") elements.unshift({ id: "link", from: "T1", to: "N", thermalLink: true });
  draft.part({ id: "R1", kind: "resistor", elements }, !given.includes(null));
  return out;
}

/** A control module that meters the motor's current by a panel's command. */
function electronicControl(
  draft: Draft,
  answers: TraceAnswers,
  supply: Supply,
  settings: readonly string[],
): void {
  const command = answered(answers, "command");
  const { still, full } = command.value;
  const panel = answered(answers, "panel");
  const plugs = answered(answers, "plugs").value;
  const groundPoint = `${idFromName(answered(answers, "grounds").value.blower)}.31`;
  const bus = answered(answers, "signal").value === "bus" ? ({ bus: true } as const) : {};
  const steps = settings.length - 1;
  const span = full - still;
  draft.part(
    {
      id: "A1",
      kind: "module",
      side: answered(answers, "hands").value === "ground" ? "low" : "high",
      drive: answered(answers, "control").value === "chopping" ? "pwm" : "linear",
      commandVolts: [still, full],
      onOhms: 0.01,
      ...bus,
    },
    command.known,
  );
  // Evenly spaced to a little past full; the first step is sure to turn the motor.
  const at = (index: number): number => 0.3 + (0.75 * (index - 1)) / (steps - 1);
  draft.part(
    {
      id: "A2",
      kind: "head",
      outOhms: 220,
      commands: Object.fromEntries(
        settings.map((setting, index) => [
          setting,
          Number((index === 0 ? still - 0.1 * span : still + span * at(index)).toFixed(2)),
        ]),
      ),
      ...bus,
    },
    // Nobody is asked for the volts of each speed.
    false,
  );
  const { batteryAmps } = panel.value;
  const { id: batteryFuse, ...fuseTitle } = namedAs(panel.value.batteryFuse);
  draft.part({ id: batteryFuse, ...fuseTitle, kind: "fuse", amps: batteryAmps }, panel.known);
  draft.wire("key", "J1.s", `${batteryFuse}.in`);
  draft.wire("blower", supply.blower, "A1.30");
  draft.wire("ground", "A1.31", groundPoint);
  draft.wire("blower", "A1.m+", "M1.+");
  draft.wire("blower", "A1.m-", "M1.-");
  draft.wire("small", "A2.cmd", "A1.cmd");
  draft.wire("small", `${batteryFuse}.out`, "A2.30");
  draft.wire("small", supply.keyed(), "A2.15");
  draft.wire("smallGround", "A2.31", groundPoint);
  draft.plug(plugs.motor, "motor plug", "M1", ["+", "-"]);
  draft.plug(plugs.control, "control module plug", "A1", ["30", "31", "cmd", "m+", "m-"]);
  draft.plug(plugs.switch, "climate panel plug", "A2", ["30", "15", "31", "cmd"]);
}

/** Locations by the minutes it takes to reach them. */
function finish(draft: Draft, answers: TraceAnswers): void {
  const { value: reach } = answered(answers, "reach");
  const plugs = answered(answers, "plugs").value;
  const coil = answered(answers, "coil").value;
  const panel = answered(answers, "panel").value;
  const { coil: coilGround = usualCoilGround } = answered(answers, "grounds").value;
  const ids = (...labels: string[]): string[] => labels.map((label) => idFromName(label));
  const box = ids(answered(answers, "fuse").value.id, coil.relay, "G1", coilGround);
  const dashBox = ids(coil.fuse, panel.keyFuse, panel.batteryFuse, "S1").filter((id) => !box.includes(id));
  const blower = ids("M1", "R1", "A1", "K9", plugs.motor, plugs.control, "J2");
  draft.place("fuse-box", reach.box, [...new Set(box)]);
  draft.place("dash-box", reach.dashBox, [...new Set(dashBox)]);
  draft.place("blower", reach.blower, blower);
  draft.place("behind-panel", reach.switch, ids("S2", "A2", plugs.switch));
}
