import type { Setup } from "../../solve/netlist/setup";

export const allTools = [
  "test-light",
  "meter",
  "clamp",
  "scope",
  "jump-leads",
  "load-lamp",
  "spare-relay",
] as const;
export type Tool = (typeof allTools)[number];

/** Every tool a test needs: its own, leads for bridging, a lamp in place of a part. */
export function toolsNeeded(tools: readonly Tool[], setup: Setup): Tool[] {
  return [
    ...tools,
    ...((setup.bridged ?? []).length > 0 ? (["jump-leads"] as const) : []),
    ...(setup.lampFor === undefined ? [] : (["load-lamp"] as const)),
  ];
}
