import type { Reading } from "../../predict/reading";
import { resultText, setupText, testText } from "../../predict/readingText";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { setupState } from "../../solve/netlist/setup";
import { nominalValues } from "../../solve/netlist/values";
import { PointSolver } from "../../solve/pointSolver";
import { listed, oddsText } from "../../units/wording";
import type { Belief } from "../belief/belief";
import { expectedAt, othersOdds, readingOdds, type Support } from "./expectation";
import { speedWords } from "./pathBoard";

/** A reading by its number and what it was: `reading 5 (light …, speed 2: dark)`. */
export function cite({ readings, numbers }: Belief, index: number): string {
  const reading = readings[index] as Reading;
  return `reading ${numbers[index]} (${testText(reading)}, ${setupText(reading)}: ${resultText(reading)})`;
}

const telling = 2;

/** Suspects that would have all the same parts replaced, whatever else besides. */
function samePartsAs(compiled: CompiledCircuit, variant: number): number[] {
  const own = compiled.variants[variant];
  return compiled.remember(`same parts as ${own?.repair}`, () =>
    [...compiled.variants.keys()].filter((other) =>
      own?.fault.parts.every((part) => compiled.variants[other]?.fault.parts.includes(part)),
    ),
  );
}

/**
 * Why a suspect stands where it does: the reading that speaks most for it and the one that speaks
 * most against it, by how much, against the suspects in other parts as they are believed.
 * @param variants the suspect's sizes
 */
export function suspectWhy(
  compiled: CompiledCircuit,
  belief: Belief,
  support: Support,
  variants: readonly number[],
): string {
  if (belief.readings.length === 0) return "Nothing seen yet: this is how often such a thing fails.";
  const own = readingOdds(support, variants);
  const others = othersOdds(support, samePartsAs(compiled, variants[0] as number));
  const ratios = own.map((odds, i) => odds / Math.max(1e-9, others[i] as number));
  const best = ratios.indexOf(Math.max(...ratios));
  const worst = ratios.indexOf(Math.min(...ratios));
  const sentences: string[] = [];
  if ((ratios[best] as number) >= telling)
    sentences.push(`For it: ${cite(belief, best)}, ${oddsText(ratios[best] as number)} against other parts.`);
  if ((ratios[worst] as number) <= 1 / telling) {
    const expected = expectedAt(compiled, belief.readings[worst] as Reading, variants[0] as number);
    sentences.push(
      `Against it: ${cite(belief, worst)}; it predicts ${expected}, ${oddsText(1 / Math.max(1e-9, ratios[worst] as number))} the other way.`,
    );
  }
  return sentences.length > 0
    ? sentences.join(" ")
    : "It fits what was seen about as well as faults in other parts do.";
}

/** More names than this are a whole path, not a place to look. */
const mostNamed = 8;

/** Shares of the strongest branch current above which a branch belongs to a speed's path. */
const pathShare = 0.2;

/** Branches that carry the motor's current in each setting of the healthy circuit, by branch id. */
export function speedPaths(compiled: CompiledCircuit): Map<string, Map<string, number>> {
  const { netlist } = compiled;
  const solver = new PointSolver(netlist);
  const values = nominalValues(netlist);
  const paths = new Map<string, Map<string, number>>();
  for (const setting of netlist.circuit.settings) {
    const solved = solver.solve(values, setupState(netlist, { key: "run", setting }), []);
    const motor = Math.max(0, ...netlist.motors.map(({ branch }) => Math.abs(solved.amps[branch] ?? 0)));
    const carried = new Map<string, number>();
    netlist.branches.forEach(({ id }, index) => {
      const amps = Math.abs(solved.amps[index] ?? 0);
      if (motor > 0.05 && amps >= pathShare * motor) carried.set(id, amps);
    });
    paths.set(setting, carried);
  }
  return paths;
}

interface SpeedsHeard {
  readonly dead: readonly string[];
  readonly full: readonly string[];
}

function speedsHeard(
  readings: readonly Reading[],
  paths: ReadonlyMap<string, ReadonlyMap<string, number>>,
): SpeedsHeard {
  const words = speedWords(readings);
  const at = (seen: string): string[] =>
    [...words].flatMap(([setting, word]) => (word === seen ? [setting] : []));
  const blowing = (setting: string): boolean => (paths.get(setting)?.size ?? 0) > 0;
  return { dead: at("none").filter(blowing), full: at("normal").filter(blowing) };
}

/**
 * The path argument, from the healthy circuit's own currents: what the dead speeds all go through and
 * the working ones do not. Null when no speed is dead.
 */
export function pathReason(compiled: CompiledCircuit, readings: readonly Reading[]): string | null {
  const paths = compiled.remember("speed paths", () => speedPaths(compiled));
  const { dead, full } = speedsHeard(readings, paths);
  if (dead.length === 0) return null;
  const working = new Set(full.flatMap((setting) => [...(paths.get(setting)?.keys() ?? [])]));
  const [first, ...rest] = dead.map((setting) => paths.get(setting) ?? new Map<string, number>());
  const shared = [...(first?.keys() ?? [])].filter(
    (id) => rest.every((path) => path.has(id)) && !working.has(id),
  );
  const named = namedBranches(compiled, shared);
  const speeds = `Speed${dead.length > 1 ? "s" : ""} ${listed(dead)} ${dead.length > 1 ? "are" : "is"} dead`;
  const cleared =
    full.length > 0
      ? `; speed${full.length > 1 ? "s" : ""} ${listed(full)}, which ${full.length > 1 ? "go" : "goes"} round ${named.length > 1 ? "them" : "it"}, ${full.length > 1 ? "work" : "works"}`
      : "";
  if (named.length === 0)
    return `${speeds}, and no one part carries all of ${dead.length > 1 ? "them" : "it"} alone${cleared ? " beside those that work" : ""}.`;
  const shares = dead.length > 1 ? "share" : "needs";
  if (named.length > mostNamed)
    return `${speeds} and ${shares} the whole way from feed to ground, ${named.length} parts, pins and wires${cleared}.`;
  return `${speeds} and ${shares} ${listed(named)}${cleared}.`;
}

/** Branch ids as a technician would list them: wire ends fold into their wire, elements say their pack. */
function namedBranches(compiled: CompiledCircuit, ids: readonly string[]): string[] {
  const wires = new Set(compiled.netlist.circuit.wires.map(({ id }) => id));
  return ids
    .filter((id) => !(id.endsWith("/from") || id.endsWith("/to")) && id !== compiled.netlist.battery.id)
    .map((id) => (wires.has(id) ? `wire ${id}` : id.includes(":") ? `pin ${id}` : id));
}

/** The looks that told most between the verdict and its nearest rival, strongest first. */
export function decisiveReasons(
  compiled: CompiledCircuit,
  belief: Belief,
  support: Support,
  chosen: readonly number[],
  rival: { readonly name: string; readonly variants: readonly number[] } | null,
  most = 3,
): string[] {
  if (!rival) return [];
  const own = readingOdds(support, chosen);
  const other = readingOdds(support, rival.variants);
  return own
    .map((odds, index) => ({ index, ratio: odds / Math.max(1e-9, other[index] as number) }))
    .filter(({ ratio, index }) => ratio >= telling && !belief.readings[index]?.heard)
    .sort((a, b) => b.ratio - a.ratio)
    .slice(0, most)
    .map(({ index, ratio }) => {
      const expected = expectedAt(compiled, belief.readings[index] as Reading, rival.variants[0] as number);
      const seen = resultText(belief.readings[index] as Reading);
      const instead = expected === seen ? "" : `; ${rival.name} would have shown ${expected}`;
      return `${capital(cite(belief, index))}${instead}, ${oddsText(ratio)}.`;
    });
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
