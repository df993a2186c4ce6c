import { screwsBack, screwsOut } from "./fastener";
import type { Fastener } from "./fastenerSchema";
import { type FittingStep, fittingCautions } from "./fittingStep";
import { type AccessPlan, type AccessStep, stepsBefore, testStepId } from "./plan";
import { cautionsOfStep, type StepCaution } from "./stepCaution";

/** A rule of the trade for refitting a step, with what it concerns. */
export type BackRule =
  | {
      readonly rule:
        | "clear-swarf"
        | "start-by-hand"
        | "into-plastic"
        | "negative-last"
        | "positive-first"
        | "wires-as-they-were"
        | "negative-on-for-test";
    }
  | { readonly rule: "new"; readonly what: string }
  | { readonly rule: "keyed"; readonly where: string }
  | { readonly rule: "hang-up"; readonly what: string }
  | { readonly rule: "all-by-hand"; readonly screws: number }
  | { readonly rule: "slide-home" | "other-screws"; readonly fastener: Fastener }
  | { readonly rule: "stays-out"; readonly screws: number }
  | { readonly rule: "plug-clicks"; readonly plug: string }
  | { readonly rule: "tubes-on"; readonly tubes: number }
  | { readonly rule: "clear-of-wheel"; readonly pluggedIn: readonly string[] };

/** An action: refitting a step, work on a new part, or the test before the panels. */
export type BackWork =
  | { readonly does: "undo"; readonly step: AccessStep }
  | { readonly does: "adapt"; readonly fitting: FittingStep }
  | { readonly does: "test"; readonly beforePanels: boolean };

/** One step of the refitting. */
export interface BackStep {
  /** The step it reverses, or its own; `test` for the test before the panels. */
  readonly id: string;
  readonly work: BackWork;
  /** How to do it, by the trade's rules. */
  readonly how: readonly BackRule[];
  /** Screws from the tray. */
  readonly screws: number;
  /** It closes something, so the tray is checked first. */
  readonly closes: boolean;
  readonly cautions: readonly StepCaution[];
}

/** Steps that close a panel or reconnect a battery for good; the test comes before them. */
const closes: ReadonlySet<AccessStep["kind"]> = new Set(["panel", "bracket"]);

/**
 * The refitting for a removal, by the trade's rules (common practice, no source). The last part removed goes back
 * first. Find the keyed position before any screw; start all screws by hand, the easiest first, before tightening any,
 * in even passes; tighten screws into plastic until seated plus an eighth to a quarter turn. Every plug clicks and
 * holds a tug, every tube is on, nothing is pinched, no swarf is left. Test before the panels; reconnect the negative
 * last.
 * @param steps the removal, in order
 * @param targets parts that were reached: their plugs are connected before the test
 * @param fittings work on the new parts, each with the step whose refitting it comes before; null if none is in the way
 */
export function refitting(
  steps: readonly AccessStep[],
  targets: readonly string[],
  fittings: readonly PlacedFitting[] = [],
): BackStep[] {
  const negative = steps.find(({ kind }) => kind === "battery-off");
  const others = [...steps].reverse().filter((step) => step !== negative);
  // As late as possible, but before anything that covers the battery itself.
  const covers = negative ? stepsBefore(steps, negative) : new Set<string>();
  const late = others.findIndex(({ id }) => covers.has(id));
  const back = negative ? others.toSpliced(late < 0 ? others.length : late, 0, negative) : others;
  const returning = back.filter((step) => step.back !== null);
  const made = returning.map(backStep);
  if (steps.length === 0) return fittings.map(fittingBack);
  return withFittings(withTest(returning, made, negative !== undefined, targets), fittings);
}

/** Work on a new part, and the removal step that let the old one out. */
export interface PlacedFitting {
  readonly fitting: FittingStep;
  readonly before: string | null;
}

/** Puts the work on each new part before the step that puts the part in; without such a step it comes first. */
function withFittings(back: readonly BackStep[], fittings: readonly PlacedFitting[]): BackStep[] {
  const known = new Set(back.map(({ id }) => id));
  const first = fittings.filter(({ before }) => before === null || !known.has(before));
  return [
    ...first.map(fittingBack),
    ...back.flatMap((step) => [
      ...fittings.filter(({ before }) => before === step.id).map(fittingBack),
      step,
    ]),
  ];
}

const fittingBack = ({ fitting }: PlacedFitting): BackStep => ({
  id: fitting.id,
  work: { does: "adapt", fitting },
  how: [],
  screws: 0,
  closes: false,
  cautions: fittingCautions(fitting),
});

/** The step of a removal that lets a part out: the last of those its target names. */
export function stepThatFrees(
  { targets }: Pick<AccessPlan, "targets">,
  steps: readonly AccessStep[],
  part: string,
): string | null {
  const own = new Set((targets[part] ?? []).flat());
  return steps.findLast(({ id, back }) => own.has(id) && back !== null)?.id ?? null;
}

/**
 * Inserts the test at the point where only panels are left to close; at the end if the battery itself was in the way.
 */
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
  const test: BackStep = {
    id: testStepId,
    work: { does: "test", beforePanels: panels > 0 },
    how: [
      { rule: "clear-of-wheel", pluggedIn: targets },
      ...(negativeOff && panels > 0 ? [{ rule: "negative-on-for-test" } as const] : []),
    ],
    screws: 0,
    closes: false,
    cautions: ["wheel"],
  };
  return [...made.slice(0, at), test, ...made.slice(at)];
}

function backStep(step: AccessStep): BackStep {
  const { id, plugs = [], tubes, hangs, keyed, kind, uses = [], fasteners = [] } = step;
  const screws = fasteners.reduce((sum, fastener) => sum + screwsBack(fastener), 0);
  const left = fasteners.reduce((sum, one) => sum + screwsOut(one), 0) - screws;
  const how: BackRule[] = [
    ...when(kind === "cut", { rule: "clear-swarf" }),
    ...uses.map((what): BackRule => ({ rule: "new", what })),
    ...(keyed ? [{ rule: "keyed", where: keyed } as const] : []),
    ...(hangs ? [{ rule: "hang-up", what: hangs } as const] : []),
    ...when(screws > 1, { rule: "all-by-hand", screws }),
    ...when(screws === 1, { rule: "start-by-hand" }),
    ...when(screws > 0 && fasteners.some(({ into }) => into === "plastic"), { rule: "into-plastic" }),
    ...fasteners
      .filter(({ loosenOnly }) => loosenOnly)
      .map((fastener): BackRule => ({ rule: "slide-home", fastener })),
    ...fasteners
      .filter(({ instead }) => instead)
      .map((fastener): BackRule => ({ rule: "other-screws", fastener })),
    ...when(left > 0, { rule: "stays-out", screws: left }),
    ...plugs.map(({ id: plug }): BackRule => ({ rule: "plug-clicks", plug })),
    ...(tubes ? [{ rule: "tubes-on", tubes } as const] : []),
    ...when(kind === "battery-off", { rule: "negative-last" }),
    ...when(kind === "battery", { rule: "positive-first" }),
    ...when(kind === "tie", { rule: "wires-as-they-were" }),
  ];
  return {
    id,
    work: { does: "undo", step },
    how,
    screws,
    closes: closes.has(kind),
    cautions: cautionsOfStep(step),
  };
}

const when = (holds: boolean, rule: BackRule): BackRule[] => (holds ? [rule] : []);
