import type { Circuit } from "@core/circuit/circuit";
import { observationOf, observations, type TestName } from "@core/predict/observations/index";
import type { AnyTest } from "@core/predict/observations/observation";
import { pickedTest, type TargetKind } from "@core/predict/observations/testForm";
import { type ShownSetup, testSetup } from "./shownSetup";

/** What was tapped on the sheet. */
export type ProbeTarget =
  | { readonly kind: "point"; readonly name: string }
  | { readonly kind: "part"; readonly id: string }
  | { readonly kind: "wire"; readonly id: string };

/** The text that identifies a target. */
export const targetName = (target: ProbeTarget): string =>
  target.kind === "point" ? target.name : target.id;

/** The kind of a target, as far as tests differ by it. */
function targetKind(circuit: Circuit, target: ProbeTarget): TargetKind {
  if (target.kind !== "part") return target.kind;
  const kind = circuit.parts.find(({ id }) => id === target.id)?.kind;
  return kind === "motor" || kind === "relay" || kind === "fuse" ? kind : "other";
}

/** Tests possible at a target, the likeliest first. */
export function testsAt(circuit: Circuit, target: ProbeTarget): TestName[] {
  const kind = targetKind(circuit, target);
  return observations
    .flatMap(({ name, form: { targets } }) => {
      const place = targets[kind];
      return place === undefined ? [] : [{ name, place }];
    })
    .sort((a, b) => a.place - b.place)
    .map(({ name }) => name);
}

/**
 * The test made at a target in a set-up, not yet parsed.
 * @param other where the other lead is: the light's clip, or the black lead
 */
export const testAt = (target: ProbeTarget, test: TestName, setup: ShownSetup, other: string): AnyTest =>
  pickedTest(observationOf(test), [targetName(target), other], testSetup(setup));

/** Plugs, fuses and relays that can be removed at a target. */
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

/** The terminal behind a plug's pin; a terminal is returned unchanged. */
function terminalAt(circuit: Circuit, point: string): string {
  const [plug, pin] = point.split(":");
  return pin === undefined ? point : (circuit.connectors.find(({ id }) => id === plug)?.pins[pin] ?? point);
}

/** The part a point belongs to, through its plug's pin to the terminal behind it. */
export function ownerOf(circuit: Circuit, point: string): string {
  const terminal = terminalAt(circuit, point);
  return terminal.slice(0, terminal.indexOf("."));
}

/** While a plug is off, a pin and the terminal behind it are two points; this is the other of the two. */
export function otherSide(circuit: Circuit, point: string, unplugged: readonly string[]): string | null {
  const terminal = terminalAt(circuit, point);
  for (const { id, pins } of circuit.connectors) {
    if (!unplugged.includes(id)) continue;
    const pin = Object.keys(pins).find((name) => pins[name] === terminal);
    if (pin !== undefined) return point === terminal ? `${id}:${pin}` : terminal;
  }
  return null;
}

/** The plugs that have a pin at a point. */
export function plugsAt(circuit: Circuit, point: string): string[] {
  const terminal = terminalAt(circuit, point);
  return circuit.connectors.flatMap(({ id, pins }) => (Object.values(pins).includes(terminal) ? [id] : []));
}

/** The wires at a point. */
export function wiresAt(circuit: Circuit, point: string): string[] {
  const terminal = terminalAt(circuit, point);
  return circuit.wires.filter(({ from, to }) => from === terminal || to === terminal).map(({ id }) => id);
}
