import type { Circuit } from "../circuit/circuit";
import { parseCircuit } from "../circuit/parseCircuit";
import type { Part } from "../circuit/parts/index";
import { problemText } from "../problem/problem";
import {
  assumedBattery,
  assumedFuseAmps,
  assumedMotor,
  assumedRelay,
  commandVolts,
  packOhms,
} from "./assumedValues";
import type { Candidate, WiringFacts } from "./candidate";
import { Harness, type Side } from "./harness";
import type { ModulePlan, PackPlan, WiringPlan } from "./wiringPlan";

/** Where the blower's feed comes from: through the key switch, through a relay that the key pulls in, or the battery. */
type Feed = "key" | "relay" | "battery";

/** Points of the feed: what feeds the blower, what the key feeds, and what is always fed. */
interface FeedPoints {
  readonly supply: string;
  readonly switched: string;
  readonly permanent: string;
}

/** Battery, fuses, key switch and, if there is one, the relay that the key pulls in. */
function feedOf(harness: Harness, feed: Feed): FeedPoints {
  harness.add({ id: "G1", kind: "battery", ...assumedBattery }, "battery");
  harness.add({ id: "E1", kind: "ground", ohms: 0.002 }, "ground");
  harness.add({ id: "E2", kind: "ground", ohms: 0.002 }, "ground");
  harness.add({ id: "J1", kind: "splice" }, "feed");
  harness.add({ id: "F1", kind: "fuse", amps: assumedFuseAmps.blower }, "fuse");
  harness.add({ id: "S1", kind: "ignition", closes: { off: [], acc: [], run: ["15"] } }, "feed");
  harness.add({ id: "F0", kind: "fuse", amps: assumedFuseAmps.main }, "fuse");
  harness.wire("G1.+", "F0.in", "feed");
  harness.wire("F0.out", "J1.s", "feed");
  harness.wire("J1.s", "S1.30", "feed");
  if (feed === "key") {
    harness.wire("S1.15", "F1.in", "feed");
    return { supply: "F1.out", switched: "F1.out", permanent: "J1.s" };
  }
  harness.add({ id: "F2", kind: "fuse", amps: assumedFuseAmps.control }, "fuse");
  harness.add({ id: "J2", kind: "splice" }, "feed");
  harness.wire("J1.s", "F1.in", "feed");
  harness.wire("S1.15", "F2.in", "feed", false);
  harness.wire("F2.out", "J2.s", "feed", false);
  if (feed === "battery") return { supply: "F1.out", switched: "J2.s", permanent: "J1.s" };
  harness.add({ id: "K1", kind: "relay", ...assumedRelay }, "relay", "relay");
  harness.wire("F1.out", "K1.30", "feed");
  harness.wire("J2.s", "K1.86", "feed", false);
  harness.wire("K1.85", "E2.31", "ground", false);
  return { supply: "K1.87", switched: "J2.s", permanent: "J1.s" };
}

/** The blower motors; both of two turn together. */
function motorsOf(harness: Harness, blowers: 1 | 2): void {
  harness.add({ id: "M1", kind: "motor", ...assumedMotor, assumed: true }, "motor", "motor");
  harness.plug("motor-plug", [
    ["plus", "M1.+", true],
    ["minus", "M1.-", true],
  ]);
  if (blowers === 1) return;
  harness.add({ id: "M2", kind: "motor", ...assumedMotor, assumed: true }, "motor-2", "motor-2");
  harness.plug("motor-plug-2", [
    ["plus", "M2.+", true],
    ["minus", "M2.-", true],
  ]);
}

/** Joins a point to one terminal of every motor. */
function toMotors(harness: Harness, from: string, terminal: "+" | "-", blowers: 1 | 2, side: Side): void {
  if (blowers === 1) {
    harness.wire(from, `M1.${terminal}`, side);
    return;
  }
  const joint = harness.add({ id: terminal === "+" ? "J8" : "J9", kind: "splice" }, side);
  harness.wire(from, `${joint}.s`, side);
  for (const motor of ["M1", "M2"]) harness.wire(`${joint}.s`, `${motor}.${terminal}`, side);
}

/** Settings of a number of speeds: `0` is off, the last is the strongest. */
const settingsOf = (speeds: number): string[] => Array.from({ length: speeds + 1 }, (_, at) => String(at));

/** A resistor pack and its switch; the pack's strongest terminal goes to the motor. */
function packAndSwitch(harness: Harness, { speeds, highAtPack, packShape }: PackPlan): void {
  const chain = packOhms(speeds - 1);
  const isStar = packShape === "star";
  // A tap of a star has as much in its one element as a tap of a chain has in all of its.
  const ohms = isStar ? chain.map((_, tap) => chain.slice(tap).reduce((sum, own) => sum + own, 0)) : chain;
  const taps = ohms.map((_, tap) => `T${tap + 1}`);
  const out = `T${speeds}`;
  harness.add(
    {
      id: "R1",
      kind: "resistor",
      assumed: true,
      elements: [
        ...ohms.map((own, tap) => ({
          id: `e${tap + 1}`,
          from: taps[tap] ?? "",
          to: (isStar ? undefined : taps[tap + 1]) ?? "N",
          ohms: own,
        })),
        { id: "link", from: taps.length > 0 ? "N" : "T0", to: out, thermalLink: true as const },
        ...(highAtPack ? [{ id: "bar", from: out, to: "TH", ohms: 0.002 }] : []),
      ],
    },
    "pack",
    "pack",
  );
  harness.plug("pack-plug", [
    ...taps.map((tap, index) => [`tap${index + 1}`, `R1.${tap}`, true] as const),
    ["out", `R1.${out}`, true],
    ...(highAtPack ? [["high", "R1.TH", true] as const] : []),
  ]);
  harness.add(
    {
      id: "S2",
      kind: "selector",
      common: "C",
      closes: Object.fromEntries(
        settingsOf(speeds).map((setting, at) => [
          setting,
          at === 0 ? [] : at === speeds ? ["H"] : [`L${at}`],
        ]),
      ),
    },
    "switch",
    "switch",
  );
  harness.plug("switch-plug", [
    ["common", "S2.C", true],
    ...taps.map((_, index) => [`low${index + 1}`, `S2.L${index + 1}`, true] as const),
    ["high", "S2.H", true],
  ]);
}

/** The pack between the motor and ground: the switch makes the ground. */
function packInGround(harness: Harness, plan: PackPlan): void {
  const { supply, switched } = feedOf(harness, plan.relay ? "relay" : "key");
  motorsOf(harness, plan.blowers);
  packAndSwitch(harness, plan);
  toMotors(harness, supply, "+", plan.blowers, "feed");
  const out = `R1.T${plan.speeds}`;
  for (let tap = 1; tap < plan.speeds; tap++) harness.wire(`R1.T${tap}`, `S2.L${tap}`, "ground");
  harness.wire("S2.C", "E1.31", "ground");
  if (plan.highRelay) {
    harness.add({ id: "K2", kind: "relay", ...assumedRelay }, "relay", plan.relay ? undefined : "relay");
    toMotors(harness, "K2.30", "-", plan.blowers, "ground");
    harness.wire("K2.87a", out, "ground");
    harness.wire("K2.87", "E1.31", "ground");
    harness.wire(switched, "K2.86", "feed", false);
    harness.wire("K2.85", "S2.H", "ground", false);
    return;
  }
  if (plan.highAtPack) {
    toMotors(harness, out, "-", plan.blowers, "ground");
    harness.wire("R1.TH", "S2.H", "ground");
    return;
  }
  harness.add({ id: "J3", kind: "splice" }, "ground");
  toMotors(harness, "J3.s", "-", plan.blowers, "ground");
  harness.wire("J3.s", out, "ground");
  harness.wire("J3.s", "S2.H", "ground");
}

/** A relay that feeds one tap of the pack from a fuse of its own; the switch pulls it in. */
function lowRelay(harness: Harness, tap: number, permanent: string): void {
  const [id, fuse] = [`K${tap + 2}`, `F${tap + 4}`];
  harness.add({ id, kind: "relay", ...assumedRelay }, "relay", tap > 1 ? undefined : "relay");
  harness.add({ id: fuse, kind: "fuse", amps: assumedFuseAmps.blower }, "fuse");
  harness.wire(permanent, `${fuse}.in`, "feed");
  harness.wire(`${fuse}.out`, `${id}.30`, "feed");
  harness.wire(`${id}.87`, `R1.T${tap}`, "feed");
  harness.wire(`S2.L${tap}`, `${id}.86`, "feed", false);
  harness.wire(`${id}.85`, "E2.31", "ground", false);
}

/** The pack between feed and the motor: the switch makes the feed. */
function packInFeed(harness: Harness, plan: PackPlan): void {
  const { supply, permanent } = feedOf(harness, plan.relay ? "relay" : "key");
  motorsOf(harness, plan.blowers);
  packAndSwitch(harness, plan);
  harness.wire(supply, "S2.C", "feed", !plan.lowRelays);
  const out = `R1.T${plan.speeds}`;
  for (let tap = 1; tap < plan.speeds; tap++)
    if (plan.lowRelays) lowRelay(harness, tap, permanent);
    else harness.wire(`S2.L${tap}`, `R1.T${tap}`, "feed");
  toMotors(harness, "E1.31", "-", plan.blowers, "ground");
  if (plan.highRelay) {
    harness.add(
      { id: "K2", kind: "relay", ...assumedRelay },
      "relay",
      plan.relay || plan.lowRelays ? undefined : "relay",
    );
    harness.add({ id: "F3", kind: "fuse", amps: assumedFuseAmps.blower }, "fuse");
    harness.wire(permanent, "F3.in", "feed");
    if (plan.lowRelays) {
      harness.add({ id: "J3", kind: "splice" }, "feed");
      harness.wire("F3.out", "K2.30", "feed");
      harness.wire("K2.87", "J3.s", "feed");
      harness.wire(out, "J3.s", "feed");
      toMotors(harness, "J3.s", "+", plan.blowers, "feed");
    } else {
      harness.wire("F3.out", "K2.87", "feed");
      harness.wire(out, "K2.87a", "feed");
      toMotors(harness, "K2.30", "+", plan.blowers, "feed");
    }
    harness.wire("S2.H", "K2.86", "feed", false);
    harness.wire("K2.85", "E2.31", "ground", false);
    return;
  }
  if (plan.highAtPack) {
    toMotors(harness, out, "+", plan.blowers, "feed");
    harness.wire("S2.H", "R1.TH", "feed");
    return;
  }
  harness.add({ id: "J3", kind: "splice" }, "feed");
  harness.wire("S2.H", "J3.s", "feed");
  harness.wire(out, "J3.s", "feed");
  toMotors(harness, "J3.s", "+", plan.blowers, "feed");
}

/** An electronic control between the supply and the motor, and the panel that commands it. */
function controlAndPanel(harness: Harness, plan: ModulePlan): void {
  const { drive, command, switchedSide, relay, speeds, blowers } = plan;
  const { supply, switched, permanent } = feedOf(harness, relay ? "relay" : "battery");
  const bus = drive === "bus";
  const volts = commandVolts[command];
  motorsOf(harness, blowers);
  harness.add(
    {
      id: "A1",
      kind: "module",
      side: switchedSide === "ground" ? "low" : "high",
      drive: drive === "linear" ? "linear" : "pwm",
      commandVolts: [volts.starts, volts.ends],
      onOhms: 0.008,
      assumed: true,
      ...(bus ? { bus: true as const } : {}),
    },
    "module",
    "module",
  );
  const { off, first, full } = volts;
  harness.add(
    {
      id: "A2",
      kind: "head",
      commands: Object.fromEntries(
        settingsOf(speeds).map((setting, at) => [
          setting,
          at === 0 ? off : first + ((full - first) * (at - 1)) / Math.max(1, speeds - 1),
        ]),
      ),
      outOhms: 180,
      assumed: true,
      ...(bus ? { bus: true as const } : {}),
    },
    "panel",
    "panel",
  );
  harness.plug("module-plug", [
    ["feed", "A1.30", true],
    ["ground", "A1.31", true],
    ["command", "A1.cmd", false],
    ["motor-plus", "A1.m+", true],
    ["motor-minus", "A1.m-", true],
  ]);
  harness.plug("panel-plug", [
    ["permanent", "A2.30", false],
    ["switched", "A2.15", false],
    ["ground", "A2.31", false],
    ["command", "A2.cmd", false],
  ]);
  harness.add({ id: "F4", kind: "fuse", amps: assumedFuseAmps.control }, "fuse");
  harness.wire(supply, "A1.30", "feed");
  harness.wire("A1.31", "E1.31", "ground");
  toMotors(harness, "A1.m+", "+", blowers, "feed");
  toMotors(harness, "A1.m-", "-", blowers, "ground");
  harness.wire("A2.cmd", "A1.cmd", "command", false);
  harness.wire(permanent, "F4.in", "feed", false);
  harness.wire("F4.out", "A2.30", "feed", false);
  harness.wire(switched, "A2.15", "feed", false);
  harness.wire("A2.31", "E2.31", "ground", false);
}

function factsOf(plan: PackPlan | ModulePlan): WiringFacts {
  const { switchedSide, relay, drive } = plan;
  if (plan.drive !== "resistor") return { switchedSide, relay, drive };
  const { highRelay, lowRelays, highAtPack, packShape } = plan;
  return { switchedSide, relay: relay || highRelay, drive, highRelay, lowRelays, highAtPack, packShape };
}

const driveTitles = {
  resistor: "resistor pack",
  pwm: "pulse-width control",
  linear: "linear control",
  bus: "control on a data bus",
} as const;

const commandTitles = {
  rising: "",
  falling: "command that falls with the speed",
  wide: "command up to nine volts",
} as const;

function titleOf(plan: PackPlan | ModulePlan): string {
  const { drive, switchedSide, relay } = plan;
  const own =
    plan.drive === "resistor"
      ? [
          plan.lowRelays ? "a relay for each speed" : plan.highRelay ? "high-speed relay" : "",
          plan.highAtPack ? "top speed through the pack's plug" : "",
          plan.packShape === "star" ? "each tap with an element of its own" : "",
        ]
      : [commandTitles[plan.command]];
  return [
    `${driveTitles[drive]}, ${switchedSide} side`,
    relay ? "feed relay" : "no feed relay",
    ...own.filter((text) => text !== ""),
  ].join(", ");
}

function idOf(plan: PackPlan | ModulePlan): string {
  const own =
    plan.drive === "resistor"
      ? [
          plan.highRelay && "high",
          plan.lowRelays && "low",
          plan.highAtPack && "through",
          plan.packShape === "star" && "star",
        ]
      : [plan.command !== "rising" && plan.command];
  return [
    plan.drive,
    plan.switchedSide,
    plan.relay && "relay",
    ...own,
    `${plan.speeds}`,
    plan.blowers === 2 && "two",
  ]
    .filter(Boolean)
    .join("-");
}

/**
 * The circuit of one way to wire the vehicle, with assumed values and with the names its points have on the vehicle.
 * @throws Error if the rules build an invalid circuit; the tests build one for every plan
 */
export function candidateOf({ plan, prior }: WiringPlan): Candidate {
  const harness = new Harness();
  if (plan.drive !== "resistor") controlAndPanel(harness, plan);
  else if (plan.switchedSide === "ground") packInGround(harness, plan);
  else packInFeed(harness, plan);
  const used = harness.wires.flatMap(({ wire }) => [wire.from, wire.to]).map((point) => point.split(".")[0]);
  // A ground that nothing uses is left out.
  const isWired = (id: string): boolean => used.includes(id);
  const parsed = parseCircuit({
    format: "airway-circuit",
    version: 1,
    id: idOf(plan),
    title: titleOf(plan),
    settings: settingsOf(plan.speeds),
    wiring: "assumed",
    parts: harness.parts.filter(({ id }) => isWired(id)),
    connectors: harness.connectors,
    wires: harness.wires.map(({ wire }) => wire),
    places: [],
  });
  if (!parsed.ok) throw new Error(`${idOf(plan)}: ${parsed.problems.map(problemText).join("; ")}`);
  const circuit: Circuit = parsed.value;
  const ofKind = (kind: Part["kind"]): string[] =>
    circuit.parts.flatMap((part) => (part.kind === kind ? [part.id] : []));
  return {
    id: circuit.id,
    title: circuit.title,
    prior,
    facts: factsOf(plan),
    circuit,
    plugs: harness.plugs(),
    parts: harness.byPlace,
    fuses: ofKind("fuse"),
    grounds: ofKind("ground"),
    repairPlace: harness.places,
  };
}
