import { believe, rankedRepairs, repairBelief } from "../diagnose/belief/belief";
import { proofOf } from "../diagnose/proof/proof";
import { type CandidateTest, candidateTests } from "../diagnose/tests/candidateTests";
import type { Forecast } from "../diagnose/tests/forecast";
import { forecasts } from "../diagnose/tests/forecasts";
import { nextTests } from "../diagnose/tests/nextTest";
import { readingFrom } from "../diagnose/tests/readingFrom";
import type { Repair } from "../fault/repair";
import { allTools } from "../predict/observations/tool";
import type { Reading } from "../predict/reading";
import { type ExerciseForm, shuffled, someOf } from "./exercise";
import type { PracticeCircuit } from "./practiceCase";

/** Tests that read well as a choice. */
const plainTests: ReadonlySet<string> = new Set(["light", "look", "ohms", "spin"]);

/** What else is worth doing on a visit: what can be reached without opening another place. */
export const sameVisit: ExerciseForm = ({ compiled }, chance) => {
  const { places } = compiled.netlist.circuit;
  const byPlace = (id: string): CandidateTest[] =>
    candidateTests(compiled, allTools).filter(
      ({ test, cost }) => plainTests.has(test.test) && cost.places.length === 1 && cost.places[0]?.id === id,
    );
  const usable = places.filter(({ id, minutes }) => minutes > 0 && byPlace(id).length > 0);
  if (usable.length < 3) return null;
  const [here, ...elsewhere] = shuffled(usable, chance);
  if (!here) return null;
  const right = chance.pick(byPlace(here.id));
  const wrong = elsewhere.slice(0, 3).map(({ id }) => chance.pick(byPlace(id)));
  const offered = [right, ...wrong].map(({ key, test, cost }) => ({
    id: key,
    test,
    minutes: cost.minutes + (test === right.test ? 0 : (cost.places[0]?.minutes ?? 0)),
  }));
  return {
    asked: { about: "same-visit", place: here.id, placeMinutes: here.minutes, offered, right: right.key },
    setup: {},
    marked: here.parts,
    answers: shuffled(offered, chance).map(({ id }) => id),
    right: [right.key],
    many: false,
  };
};

/** A complaint: every speed dead, or only the top one alive. */
function someComplaint({ exact }: PracticeCircuit, onlyTop: boolean): Reading[] {
  const [off, ...running] = exact.circuit.settings;
  const air = (setting: string | undefined, seen: "none" | "normal"): Reading => ({
    test: "airflow",
    heard: true,
    key: "run",
    setting,
    seen,
  });
  const top = running.at(-1);
  return [
    air(off, "none"),
    ...running.map((setting) => air(setting, onlyTop && setting === top ? "normal" : "none")),
  ];
}

/** A reading, and how likely the part is after it. */
interface After {
  readonly reading: Reading;
  readonly p: number;
  readonly proves: boolean;
}

/** A test's result that speaks most for a repair, and whether it proves it. */
function bestFor(
  { compiled }: PracticeCircuit,
  heard: readonly Reading[],
  { look, outcomes, repairs }: Forecast,
  repair: Repair,
): After | null {
  const at = repairs.indexOf(repair);
  const [likeliest] = [...outcomes].sort((a, b) => b.p * (b.repairs[at] ?? 0) - a.p * (a.repairs[at] ?? 0));
  if (!likeliest) return null;
  const reading = readingFrom(look, likeliest);
  const belief = believe(compiled, [...heard, reading]);
  return {
    reading,
    p: repairBelief(compiled, belief).get(repair) ?? 0,
    proves: proofOf(compiled, belief, repair, allTools).complete,
  };
}

/** Which reading proves a part, and which only makes it likelier. */
export const whatProvesIt: ExerciseForm = (on, chance) => {
  const { compiled, exact } = on;
  // Only a pack leaves the top speed alone.
  const onlyTop = exact.circuit.parts.some(({ kind }) => kind === "resistor") && chance.uniform() < 0.6;
  const heard = someComplaint(on, onlyTop);
  const belief = believe(compiled, heard);
  const repairs = rankedRepairs(repairBelief(compiled, belief))
    .slice(0, 3)
    .map(([repair]) => repair)
    .filter(({ parts }) => parts.length === 1);
  if (repairs.length === 0) return null;
  const repair = chance.pick(repairs);
  const [proving, more] = proofOf(compiled, belief, repair, allTools).missing;
  const right = proving && !more ? bestFor(on, heard, proving, repair) : null;
  if (!right?.proves) return null;
  const said = proofOf(compiled, believe(compiled, [...heard, right.reading]), repair, allTools).shown[0];
  const part = repair.parts[0];
  if (!said || part === undefined) return null;
  const forecast = forecasts(compiled, belief);
  const others = nextTests(compiled, belief, { tools: allTools, school: "least-time", count: 12 })
    .filter(({ look }) => look.test !== proving?.look.test || look.test === "light")
    .flatMap(({ look }) => bestFor(on, heard, forecast(look), repair) ?? [])
    .filter(({ proves }) => !proves);
  if (others.length < 2) return null;
  const offered = shuffled([right, ...someOf(others.slice(0, 5), 2, chance)], chance).map((own, at) => ({
    id: String(at + 1),
    reading: own.reading,
    p: own.p,
    proves: own.proves,
  }));
  return {
    asked: {
      about: "proof",
      alive: onlyTop ? (exact.circuit.settings.at(-1) ?? null) : null,
      part,
      says: said.says,
      offered,
    },
    setup: {},
    marked: [part],
    answers: offered.map(({ id }) => id),
    right: offered.filter(({ proves }) => proves).map(({ id }) => id),
    many: false,
  };
};
