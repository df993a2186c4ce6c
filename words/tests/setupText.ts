import type { Setup } from "@core/solve/netlist/setup";

/** The set-up of a test in words: `key run, speed 2`. */
export function setupText(setup: Setup): string {
  const words: string[] = [`key ${setup.key ?? "off"}`];
  if (setup.engine) words.push("engine running");
  if (setup.setting !== undefined) words.push(speedText(setup.setting));
  for (const [id, setting] of Object.entries(setup.selectors ?? {})) words.push(`${id} on ${setting}`);
  for (const id of setup.unplugged ?? []) words.push(`${id} off`);
  for (const [one, other] of setup.bridged ?? []) words.push(`${one} joined to ${other}`);
  if (setup.lampFor) words.push(`lamp in place of ${setup.lampFor}`);
  return words.join(", ");
}

const speedText = (setting: string): string => (/^\d+$/.test(setting) ? `speed ${setting}` : setting);
