import { fastenerText, screwsBack, screwsOut } from "./fastener";
import { type AccessStep, stepsBefore, testStepId } from "./plan";
import { cautionsOfStep, type StepCaution } from "./stepCaution";

/** One step of the way back. */
export interface BackStep {
  /** The step it undoes; `test` for the test before the panels. */
  readonly id: string;
  readonly title: string;
  /** How it is done, by the trade's rules. */
  readonly how: readonly string[];
  /** Screws from the tray. */
  readonly screws: number;
  /** It closes something: the tray is looked at before. */
  readonly closes: boolean;
  readonly cautions: readonly StepCaution[];
}

/** What a panel or a battery closes for good: the test comes before it. */
const closes: ReadonlySet<AccessStep["kind"]> = new Set(["panel", "bracket"]);

/**
 * The way back from a way in, by the trade's rules (common practice, no source): the last off goes on first; the keyed
 * position before any screw; the easiest screw first and all started by hand before any is tightened, in even passes; plastic to
 * seated plus an eighth to a quarter turn; every plug clicks and holds a tug, every tube is on, nothing is pinched, no swarf is
 * left; a test before the panels; the negative last.
 * @param steps the way in, in order
 * @param targets parts that were got at: their plugs are on before the test
 */
export function refitting(steps: readonly AccessStep[], targets: readonly string[]): BackStep[] {
  const negative = steps.find(({ kind }) => kind === "battery-off");
  const others = [...steps].reverse().filter((step) => step !== negative);
  // As late as can be: before what covers the battery itself.
  const covers = negative ? stepsBefore(steps, negative) : new Set<string>();
  const late = others.findIndex(({ id }) => covers.has(id));
  const back = negative ? others.toSpliced(late < 0 ? others.length : late, 0, negative) : others;
  const returning = back.filter((step) => step.back !== null);
  const made = returning.map(backStep);
  if (steps.length === 0) return made;
  return withTest(returning, made, negative !== undefined, targets);
}

/** Puts the test in where nothing but panels is left to close; at the end where the battery itself was in the way. */
function withTest(
  returning: readonly AccessStep[],
  made: readonly BackStep[],
  negativeOff: boolean,
  targets: readonly string[],
): BackStep[] {
  const panelsOnly = (from: number): boolean =>
    returning.slice(from).every(({ kind }) => closes.has(kind) || kind === "battery-off" || kind === "tie");
  const place = returning.findIndex((_, index) => panelsOnly(index));
  const panels = place < 0 ? 0 : returning.slice(place).filter(({ kind }) => closes.has(kind)).length;
  const at = panels > 0 ? place : returning.length;
  const what = targets.length > 0 ? ` with ${targets.join(" and ")} plugged in` : "";
  const test: BackStep = {
    id: testStepId,
    title: `Test ${panels > 0 ? "before the panels" : "now"}: key on, off, every speed, back, off stays off`,
    how: [
      `hands and tools clear of the wheel${what}`,
      ...(negativeOff && panels > 0
        ? ["every plug on first, airbag plugs too; the negative on for the test, then off again"]
        : []),
    ],
    screws: 0,
    closes: false,
    cautions: ["wheel"],
  };
  return [...made.slice(0, at), test, ...made.slice(at)];
}

function backStep(step: AccessStep): BackStep {
  const { id, title, back, plugs = [], tubes, hangs, keyed, kind, uses = [], fasteners = [] } = step;
  const screws = fasteners.reduce((sum, fastener) => sum + screwsBack(fastener), 0);
  const left = fasteners.reduce((sum, one) => sum + screwsOut(one), 0) - screws;
  const loosened = fasteners.filter(({ loosenOnly }) => loosenOnly);
  const how = [
    ...(kind === "cut" ? ["swarf out, edges clean, before anything goes in"] : []),
    ...uses.map((what) => `new: ${what}`),
    ...(keyed ? [`keyed position first: ${keyed}`] : []),
    ...(hangs ? [`${hangs} back on its bracket, nothing pinched`] : []),
    ...(screws > 1
      ? [`easiest screw first; all ${screws} started by hand before any is tightened; even passes`]
      : []),
    ...(screws === 1 ? ["started by hand"] : []),
    ...(screws > 0 && fasteners.some(({ into }) => into === "plastic")
      ? ["into plastic: seated plus an eighth to a quarter turn; stripped plastic holds nothing"]
      : []),
    ...loosened.map((own) => `${fastenerText(own)}: slid home, then tightened`),
    ...(left > 0
      ? [`${left} ${left === 1 ? "screw stays" : "screws stay"} out for good: its ear is gone`]
      : []),
    ...plugs.map(({ id: plug }) => `${plug} clicks and holds a tug`),
    ...(tubes ? [tubes === 1 ? "the tube on, not kinked" : `all ${tubes} tubes on, not kinked`] : []),
    ...(kind === "battery-off" ? ["the last of all; no spanner from the positive to the body"] : []),
    ...(kind === "battery" ? ["positive first on, then its cover"] : []),
    ...(kind === "tie" ? ["untied, its wires where they were"] : []),
  ];
  return {
    id,
    title: back ?? `back: ${title}`,
    how,
    screws,
    closes: closes.has(kind),
    cautions: cautionsOfStep(step),
  };
}
