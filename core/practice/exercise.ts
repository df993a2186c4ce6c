import type { Chance } from "../chance/chance";
import type { Change } from "../solve/netlist/change";
import { type Setup, setupState } from "../solve/netlist/setup";
import { nominalValues } from "../solve/netlist/values";
import { type OpenCircuit, openCircuit } from "../solve/openCircuit";
import { PointSolver } from "../solve/pointSolver";
import { type LampWord, lampVolts, lampWord, testLight } from "../solve/tungstenLamp";
import type { Asked } from "./asked";
import type { PracticeCircuit } from "./practiceCase";

/** A question computed from a circuit: the question, the choices, and the right answer. */
export interface Exercise {
  readonly asked: Asked;
  /** The set-up shown with it. */
  readonly setup: Setup;
  /** Points, parts or wires to be marked on the drawing. */
  readonly marked: readonly string[];
  /** The choices: parts, words, or figures as displayed. */
  readonly answers: readonly string[];
  readonly right: readonly string[];
  /** True if several choices may be right. */
  readonly many: boolean;
}

/** Makes an exercise of a kind; null if the circuit has nothing to ask. */
export type ExerciseForm = (on: PracticeCircuit, chance: Chance) => Exercise | null;

/** In random order. */
export function shuffled<T>(items: readonly T[], chance: Chance): T[] {
  const left = [...items];
  return items.map(() => left.splice(Math.floor(chance.uniform() * left.length), 1)[0] as T);
}

/** A random selection that keeps the order. */
export function someOf<T>(items: readonly T[], count: number, chance: Chance): T[] {
  const chosen = new Set(shuffled([...items.keys()], chance).slice(0, count));
  return items.filter((_, index) => chosen.has(index));
}

/** Volts and ohms between two points of a nominal vehicle with some changes. */
export function across(
  { exact }: PracticeCircuit,
  setup: Setup,
  one: string,
  other: string,
  changes: readonly Change[] = [],
): OpenCircuit {
  const solver = new PointSolver(exact);
  const solved = solver.solve(nominalValues(exact), setupState(exact, setup), changes);
  return openCircuit(solver, solved, exact, one, other);
}

/** Amps of a branch, by its part or wire, of a nominal vehicle with some changes. */
export function ampsOf(
  { exact }: PracticeCircuit,
  setup: Setup,
  id: string,
  changes: readonly Change[] = [],
): number {
  const solved = new PointSolver(exact).solve(nominalValues(exact), setupState(exact, setup), changes);
  return Math.abs(solved.amps[exact.branchOf.get(id) ?? -1] ?? 0);
}

/** How an eye judges a 3 W test light between two points. */
export const lightCalled = ({ volts, ohms }: OpenCircuit): LampWord =>
  lampWord(lampVolts(testLight, volts, ohms));

/** The circuit's strongest setting. */
export const topOf = ({ exact }: PracticeCircuit): string => exact.circuit.settings.at(-1) ?? "off";

/** The battery's two posts, which stand for any good feed and any bare metal. */
export const posts = ({ exact }: PracticeCircuit): { plus: string; minus: string } => ({
  plus: `${exact.battery.id}.+`,
  minus: `${exact.battery.id}.-`,
});

/** A point as a probe reaches it: the pin on a terminal if there is a plug. */
export const plugged = ({ exact }: PracticeCircuit, terminal: string): string =>
  exact.points.pinOnTerminal.get(terminal) ?? terminal;

/** Choices around a right figure, at least a given distance apart, with the right one among them. */
export function figuresAround(
  right: number,
  others: readonly number[],
  apart: number,
  text: (value: number) => string,
  chance: Chance,
): { answers: string[]; right: string[] } {
  const kept: number[] = [right];
  for (const own of others)
    if (kept.length < 4 && kept.every((met) => Math.abs(met - own) >= apart)) kept.push(own);
  const texts = [...new Set(kept.map(text))];
  return {
    answers: shuffled(texts, chance),
    right: [text(right)],
  };
}
