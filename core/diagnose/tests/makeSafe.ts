import type { Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { speedPaths } from "../explain/reasons";

/** How a blower that will not stop is silenced, the easiest first (common practice, no source). */
export interface MakeSafe {
  /** The fuses to pull, together. */
  readonly fuses: readonly string[];
  /** The motors' own plugs. */
  readonly plugs: readonly string[];
  readonly battery: string;
}

/** Whether the blower runs although the switch or the key is off, by the last that was said or seen of each. */
export function runsOn({ netlist }: CompiledCircuit, readings: readonly Reading[]): boolean {
  const [off = "off"] = netlist.circuit.settings;
  const last = new Map<string, boolean>();
  for (const reading of readings) {
    if (reading.test !== "airflow" || reading.bridged?.length || reading.unplugged?.length) continue;
    const keyOff = (reading.key ?? "off") === "off";
    if (!keyOff && (reading.setting !== off || Object.keys(reading.selectors ?? {}).length > 0)) continue;
    last.set(keyOff ? "key" : "switch", reading.seen !== "none");
  }
  return [...last.values()].includes(true);
}

/** Fuses above this rating feed the whole vehicle and are bolted in (common practice, no source). */
const mostAmps = 50;

/**
 * The fuses to pull so that no speed has feed: the smallest that every speed's current goes through, or where speeds
 * have fuses of their own, the smallest of each.
 */
function fusesToPull(compiled: CompiledCircuit): string[] {
  const fuses = compiled.netlist.circuit.parts
    .flatMap((part) => (part.kind === "fuse" && part.amps <= mostAmps ? [part] : []))
    .sort((a, b) => a.amps - b.amps);
  const paths = [...speedPaths(compiled).values()].filter((path) => path.size > 0);
  const common = fuses.find(({ id }) => paths.every((path) => path.has(id)));
  if (common) return [common.id];
  return [...new Set(paths.flatMap((path) => fuses.find(({ id }) => path.has(id))?.id ?? []))];
}

/** How to silence a blower that will not stop; null if it stops. */
export function makeSafe(compiled: CompiledCircuit, readings: readonly Reading[]): MakeSafe | null {
  if (!runsOn(compiled, readings)) return null;
  const { motors, battery, points } = compiled.netlist;
  return {
    fuses: fusesToPull(compiled),
    plugs: [
      ...new Set(
        motors.flatMap(({ part }) => {
          const pin = points.pinOnTerminal.get(`${part.id}.+`);
          return pin ? [pin.slice(0, pin.indexOf(":"))] : [];
        }),
      ),
    ],
    battery: battery.id,
  };
}
