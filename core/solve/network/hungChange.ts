import type { Change } from "../netlist/change";
import type { Branch, Netlist } from "../netlist/netlist";
import type { Groups } from "./connectivity";
import type { HealthyNetwork, HealthyState, HungChange } from "./networkState";

/** Changes of a healthy network's own branches, and new connections to it. */
export interface NetworkChanges {
  readonly series: readonly SeriesChange[];
  readonly bridges: readonly HungChange[];
}

type SeriesChange = Extract<Change, { readonly type: "series" }>;

/** How many changes hang on a network at once. */
export const mostHung = 2;
/** A branch of fewer than 100 µΩ is not told from its change with enough digits to spare. */
const leastOhms = 1e-4;
/** Ways to stand are told apart by a number of as many bits. */
const mostDevices = 50;

/**
 * The changes that hang on a healthy network.
 * @param isInside whether a branch is part of the network where it conducts
 * @returns null where they cannot: another battery, a panel that says something else, two opens, or too many
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
 * Hangs changes on a network: a branch with more ohms is its healthy self with a negative resistance beside it;
 * a branch whose opening cuts nodes off only pins them to the rest from then on.
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
