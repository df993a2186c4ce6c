import type { Circuit } from "@core/circuit/circuit";
import type { Setup } from "@core/solve/netlist/setup";
import { partName } from "../partName";

/** A speed in words: `speed 2`, or the name of a setting that is not a number. */
export const speedText = (setting: string): string => (/^\d+$/.test(setting) ? `speed ${setting}` : setting);

/**
 * The set-up of a test in words: `key run, speed 2, resistor plug X5 unplugged`.
 * @param circuit names the parts; null to use their ids
 */
export function setupText(circuit: Circuit | null, setup: Setup): string {
  const named = (id: string): string => (circuit ? `${partName(circuit, id)} ${id}` : id);
  const words: string[] = [`key ${setup.key ?? "off"}`];
  if (setup.engine) words.push("engine running");
  if (setup.setting !== undefined) words.push(speedText(setup.setting));
  for (const [id, setting] of Object.entries(setup.selectors ?? {})) words.push(`switch ${id} at ${setting}`);
  for (const id of setup.unplugged ?? []) {
    const relay = circuit?.parts.some((part) => part.id === id && part.kind === "relay") ?? false;
    words.push(`${named(id)} ${relay ? "out" : "unplugged"}`);
  }
  for (const [one, other] of setup.bridged ?? []) words.push(`${one} joined to ${other}`);
  if (setup.lampFor) words.push(`load lamp in place of ${named(setup.lampFor)}`);
  return words.join(", ");
}
