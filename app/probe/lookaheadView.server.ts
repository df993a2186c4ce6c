import type { PlannedLook, SchoolCost } from "@core/diagnose/tests/plan";
import type { TestName } from "@core/predict/reading";
import { repairName } from "@words/partName";
import { displayUnits } from "@words/stateWords";
import { lookWords } from "@words/testWords";
import { diagnosisOf } from "../job/diagnosis.server";
import type { JobView } from "../job/jobView.server";

/** A look to come, in words, and what would follow. */
export interface LookAheadView {
  readonly words: string;
  readonly minutes: number;
  readonly outcomes: readonly {
    readonly seen: string;
    readonly p: number;
    readonly repair: string;
    readonly repairP: number;
    readonly next: LookAheadView | null;
  }[];
}

/** The looks to come and the schools' minutes, as the page shows them. */
export interface PlanView {
  readonly first: LookAheadView | null;
  readonly schools: readonly SchoolCost[];
}

/** Looks shown one after another; the plan itself goes one deeper to price the schools. */
const shownDeep = 2;

/** A display's range with its unit. */
function unitOf(test: TestName, seen: string): string {
  const unit = displayUnits[test];
  return unit && seen !== "no end" ? `${seen} ${unit}` : seen;
}

export function planView(view: JobView): PlanView {
  const { circuit } = view;
  const { plan = { first: null, schools: [] } } = diagnosisOf(view, { plan: true });
  const shown = (look: PlannedLook | null, deep: number): LookAheadView | null => {
    if (!look || deep === 0) return null;
    const { before, points, between, after } = lookWords(circuit, look.test);
    return {
      words: `${before} ${points.join(` ${between} `)}${after}`,
      minutes: look.minutes,
      outcomes: look.outcomes.map(({ seen, p, repair, repairP, next }) => ({
        seen: unitOf(look.test.test, seen),
        p,
        repair: repairName(circuit, repair.split("+")),
        repairP,
        next: shown(next, deep - 1),
      })),
    };
  };
  return { first: shown(plan.first, shownDeep), schools: plan.schools };
}
