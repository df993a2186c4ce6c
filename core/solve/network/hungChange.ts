import type { Change } from "../netlist/change";
import type { Branch, Netlist } from "../netlist/netlist";
import type { Groups } from "./connectivity";
import type { HealthyNetwork, HealthyState, HungChange } from "./networkState";

/** Changes to a healthy network: its own branches with other values, and new connections. */
export interface NetworkChanges {
  readonly series: readonly SeriesChange[];
  readonly bridges: readonly HungChange[];
}

type SeriesChange = Extract<Change, { readonly type: "series" }>;

/** Largest number of changes on one network. */
export const mostHung = 2;
/** Below 100 µΩ, a branch and its change cannot be separated with enough digits. */
const leastOhms = 1e-4;
/** Largest number of devices whose on/off states are encoded as bits to tell networks apart. */
const mostDevices = 50;

/**
 * The changes that can be applied to a healthy network.
 * @param isInside whether a branch is part of the network when it conducts
 * @returns null if they cannot be: another battery, a panel with another output, two opens, or too many changes
 */
export function networkChanges(
  netlist: Netlist,
  { ohms }: HealthyNetwork,
  changes: readonly Change[],
  isInside: (branch: number) => boolean,
): NetworkChanges | null {
  if (netlist.devices.length > mostDevices) return null;
  const series: SeriesChange[] = [];
  const bridges: HungChange[] = [];
  let opens = 0;
  for (const change of changes) {
    if (change.type === "battery") return null;
    if (change.type === "head" && change.held !== "dead") return null;
    if (change.type === "bridge") bridges.push({ ends: change, ohms: change.ohms });
    if (change.type !== "series" || !isInside(change.branch)) continue;
    const { branch } = change;
    const control = netlist.branches[branch]?.control;
    if (branch === netlist.battery.branch || control?.by === "head") return null;
    if ((ohms[branch] as number) < leastOhms || series.some((own) => own.branch === branch)) return null;
    if (change.ohms === Number.POSITIVE_INFINITY && ++opens > 1) return null;
    series.push(change);
  }
  return series.length + bridges.length > mostHung ? null : { series, bridges };
}

/**
 * Applies changes to a network. A branch with more ohms is its healthy self with a negative resistance in parallel;
 * opening a branch that cuts nodes off turns that branch into a mere pin for them.
 * @param without the network's groups with one branch open
 */
export function hang(
  { series, bridges }: NetworkChanges,
  { siemens, whole }: HealthyState,
  branches: readonly Branch[],
  without: (branch: number) => Groups,
): { readonly groups: Groups; readonly changed: readonly HungChange[] } {
  if (series.length === 0) return { groups: whole, changed: bridges };
  let groups = whole;
  const changed = bridges.slice();
  for (const { branch, ohms } of series) {
    if (siemens[branch] === 0) continue;
    const healthy = 1 / (siemens[branch] as number);
    const ends = branches[branch] as Branch;
    if (ohms !== Number.POSITIVE_INFINITY) {
      changed.push({ ends, ohms: (-healthy * (healthy + ohms)) / ohms });
      continue;
    }
    groups = without(branch);
    if (groups.count === whole.count) changed.push({ ends, ohms: -healthy });
  }
  return { groups, changed };
}
