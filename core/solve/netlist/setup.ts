import type { KeyPosition } from "../../circuit/parts/ignition";
import type { Problem, ProblemCode } from "../../problem/problem";
import { quoted } from "../../problem/problem";
import type { Branch, Netlist } from "./netlist";

/** The state of the vehicle during a test. Absent keys have the format's defaults. */
export interface Setup {
  readonly key?: KeyPosition | undefined;
  readonly engine?: boolean | undefined;
  readonly setting?: string | undefined;
  readonly selectors?: Readonly<Record<string, string>> | undefined;
  readonly unplugged?: readonly string[] | undefined;
  readonly bridged?: readonly (readonly [string, string])[] | undefined;
  readonly lampFor?: string | undefined;
}

/** A set-up in the form the solver uses. */
export interface SetupState {
  /** 1 if a branch may conduct: switch closed and plug on. Relays are decided while solving. */
  readonly closed: Uint8Array;
  readonly source: "resting" | "charging" | "disconnected";
  readonly jumpers: readonly { readonly a: number; readonly b: number }[];
  readonly lamp: { readonly a: number; readonly b: number } | null;
  /** Command volts each panel is set to, by panel. */
  readonly commands: readonly number[];
}

/** Equal texts mean equal set-ups. */
export function setupKey(netlist: Netlist, setup: Setup): string {
  const full = withDefaults(netlist, setup);
  return JSON.stringify([
    full.key,
    full.engine,
    full.setting,
    Object.entries(full.selectors).sort(),
    [...full.unplugged].sort(),
    full.bridged.map((pair) => [...pair].sort().join()).sort(),
    full.lampFor,
  ]);
}

/** The set-up with the format's defaults filled in: key off, engine off, first setting. */
export function withDefaults(netlist: Netlist, setup: Setup) {
  return {
    key: setup.key ?? "off",
    engine: setup.engine ?? false,
    setting: setup.setting ?? netlist.circuit.settings[0] ?? "off",
    selectors: setup.selectors ?? {},
    unplugged: setup.unplugged ?? [],
    bridged: setup.bridged ?? [],
    lampFor: setup.lampFor ?? null,
  };
}

/** The problems of a set-up on this circuit, by path: unknown settings, plugs and points. */
export function setupProblems(netlist: Netlist, setup: Setup): Problem[] {
  const problems: Problem[] = [];
  const { circuit } = netlist;
  const report = (code: ProblemCode, path: string, message: string) =>
    void problems.push({ code, path, message });
  if (setup.engine && setup.key !== "run")
    report(
      "contradiction",
      "engine",
      `the engine runs only with key "run", got ${quoted(setup.key ?? "off")}`,
    );
  if (setup.setting !== undefined && !circuit.settings.includes(setup.setting))
    report(
      "wrong-value",
      "setting",
      `unknown setting ${quoted(setup.setting)}, expected one of ${circuit.settings.join(", ")}`,
    );
  for (const [id, setting] of Object.entries(setup.selectors ?? {})) {
    const part = circuit.parts.find((candidate) => candidate.id === id);
    if (part?.kind !== "selector") report("no-such-thing", `selectors.${id}`, `no selector ${quoted(id)}`);
    else if (!(part.settings ?? circuit.settings).includes(setting))
      report(
        "wrong-value",
        `selectors.${id}`,
        `unknown setting ${quoted(setting)}, expected one of ${(part.settings ?? circuit.settings).join(", ")}`,
      );
  }
  (setup.unplugged ?? []).forEach((id, index) => {
    if (!isUnpluggable(netlist, id))
      report("wrong-value", `unplugged.${index}`, `expected a connector, fuse or relay, got ${quoted(id)}`);
  });
  (setup.bridged ?? []).forEach((pair, index) => {
    pair.forEach((point, end) => {
      if (!netlist.points.ownerOf.has(point))
        report("no-such-thing", `bridged.${index}.${end}`, `no point ${quoted(point)}`);
    });
  });
  if (setup.lampFor !== undefined && lampEnds(netlist, setup.lampFor) === null)
    report("wrong-value", "lampFor", `expected a motor or a fuse, got ${quoted(setup.lampFor)}`);
  return problems;
}

function isUnpluggable(netlist: Netlist, id: string): boolean {
  const { circuit } = netlist;
  if (circuit.connectors.some((connector) => connector.id === id)) return true;
  const kind = circuit.parts.find((part) => part.id === id)?.kind;
  return kind === "fuse" || kind === "relay" || kind === "inline";
}

/** The two points the load lamp connects when it replaces a part; null if the part has no such points. */
export function lampEnds(netlist: Netlist, id: string): readonly [string, string] | null {
  const part = netlist.circuit.parts.find((candidate) => candidate.id === id);
  const ends = part?.kind === "motor" ? ["+", "-"] : part?.kind === "fuse" ? ["in", "out"] : null;
  if (!ends) return null;
  const point = (terminal = ""): string => {
    const name = `${id}.${terminal}`;
    return netlist.points.pinOnTerminal.get(name) ?? name;
  };
  return [point(ends[0]), point(ends[1])];
}

/** Decides the state of each branch's switch. Call `setupProblems` first on outside input. */
export function setupState(netlist: Netlist, setup: Setup, batteryOff = false): SetupState {
  const full = withDefaults(netlist, setup);
  const out = new Set(full.unplugged);
  const partsOut = new Set(full.unplugged);
  if (full.lampFor) partsOut.add(full.lampFor);
  const pinOut = (branch: Branch): boolean => out.has(branch.owner) || partsOut.has(branch.owner);
  const node = (name: string): number => netlist.nodeOf.get(name) ?? -1;
  const settingOf = (part: string): string => full.selectors[part] ?? ownFirst(netlist, part) ?? full.setting;
  const closed = Uint8Array.from(netlist.branches, (branch) => {
    if (pinOut(branch)) return 0;
    if (branch.control?.by === "ignition") return branch.control.closedIn.has(full.key) ? 1 : 0;
    if (branch.control?.by === "selector")
      return branch.control.closedIn.has(settingOf(branch.control.part)) ? 1 : 0;
    return 1;
  });
  if (batteryOff) closed[netlist.battery.branch] = 0;
  const lamp = full.lampFor ? lampEnds(netlist, full.lampFor) : null;
  return {
    closed,
    source: batteryOff ? "disconnected" : full.engine ? "charging" : "resting",
    jumpers: full.bridged.map(([one, other]) => ({ a: node(one), b: node(other) })),
    lamp: lamp ? { a: node(lamp[0]), b: node(lamp[1]) } : null,
    commands: netlist.heads.map(({ part }) => part.commands[full.setting] ?? 0),
  };
}

/** A selector with its own settings stands at its first one unless the set-up moves it. */
function ownFirst(netlist: Netlist, id: string): string | undefined {
  const part = netlist.circuit.parts.find((candidate) => candidate.id === id);
  return part?.kind === "selector" ? part.settings?.[0] : undefined;
}
