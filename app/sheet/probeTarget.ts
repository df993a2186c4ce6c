import type { Circuit } from "@core/circuit/circuit";
import type { Test, TestName } from "@core/predict/reading";
import { type ShownSetup, testSetup } from "./shownSetup";

/** What was tapped on the sheet. */
export type ProbeTarget =
  | { readonly kind: "point"; readonly name: string }
  | { readonly kind: "part"; readonly id: string }
  | { readonly kind: "wire"; readonly id: string };

/** The text that tells one target from another. */
export const targetName = (target: ProbeTarget): string =>
  target.kind === "point" ? target.name : target.id;

/** Tests that can be made at a target, the likeliest first. */
export function testsAt(circuit: Circuit, target: ProbeTarget): TestName[] {
  if (target.kind === "point") return ["light", "volts", "ohms"];
  if (target.kind === "wire") return ["amps"];
  const kind = circuit.parts.find(({ id }) => id === target.id)?.kind;
  switch (kind) {
    case "motor":
      return ["spin", "listen", "tap", "lampload", "amps", "look", "ripple"];
    case "relay":
      return ["swap", "tap", "look"];
    case "fuse":
      return ["look", "lampload", "tap"];
    case undefined:
      return ["look", "tap"];
    default:
      return ["look", "tap"];
  }
}

/** Where the leads of a two-point test are put. */
export interface Leads {
  /** The other lead's point: the light's clip, or the black lead. */
  readonly other: string;
}

/** The look a test at a target makes in a set-up. */
export function testAt(target: ProbeTarget, test: TestName, setup: ShownSetup, { other }: Leads): Test {
  const at = targetName(target);
  const live = testSetup(setup);
  switch (test) {
    case "light":
      return { test, probe: at, clip: other, ...live };
    case "volts":
      return { test, red: at, black: other, ...live };
    case "ohms": {
      // Ohms are measured with the battery off: neither key nor engine belongs to the look.
      const { setting, unplugged } = testSetup({ ...setup, engine: false });
      return { test, red: at, black: other, setting, ...(unplugged ? { unplugged } : {}) };
    }
    case "amps":
      return { test, around: at, ...live };
    case "spin":
    case "look":
      return { test, at };
    case "listen":
    case "smell":
      return { test, ...live };
    case "lampload":
      return { test, ...live, lampFor: at };
    case "tap":
    case "swap":
    case "ripple":
      return { test, at, ...live };
    case "airflow":
      return { test, ...live };
    case "history":
      return { test, of: "heat" };
  }
}

/** Plugs, fuses and relays that can be pulled at a target. */
export function pullable(circuit: Circuit, target: ProbeTarget): string[] {
  if (target.kind === "wire") return [];
  const part = target.kind === "part" ? target.id : ownerOf(circuit, target.name);
  const own = circuit.parts.find(({ id }) => id === part)?.kind;
  const plugs = circuit.connectors
    .filter(
      ({ id, pins }) =>
        id === part || Object.values(pins).some((terminal) => terminal.startsWith(`${part}.`)),
    )
    .map(({ id }) => id);
  return own === "fuse" || own === "relay" || own === "inline" ? [...plugs, part] : plugs;
}

/** The terminal behind a plug's pin; a terminal is its own. */
function terminalAt(circuit: Circuit, point: string): string {
  const [plug, pin] = point.split(":");
  return pin === undefined ? point : (circuit.connectors.find(({ id }) => id === plug)?.pins[pin] ?? point);
}

/** The part a point belongs to: through its plug's pin to the terminal behind it. */
export function ownerOf(circuit: Circuit, point: string): string {
  const terminal = terminalAt(circuit, point);
  return terminal.slice(0, terminal.indexOf("."));
}

/** While a plug is off a pin and the terminal behind it are two points: the other of the two. */
export function otherSide(circuit: Circuit, point: string, unplugged: readonly string[]): string | null {
  const terminal = terminalAt(circuit, point);
  for (const { id, pins } of circuit.connectors) {
    if (!unplugged.includes(id)) continue;
    const pin = Object.keys(pins).find((name) => pins[name] === terminal);
    if (pin !== undefined) return point === terminal ? `${id}:${pin}` : terminal;
  }
  return null;
}

/** The wires at a point. */
export function wiresAt(circuit: Circuit, point: string): string[] {
  const terminal = terminalAt(circuit, point);
  return circuit.wires.filter(({ from, to }) => from === terminal || to === terminal).map(({ id }) => id);
}
