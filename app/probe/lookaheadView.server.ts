import type { LookaheadTest, StrategyCost } from "@core/diagnose/tests/lookahead";
import type { TestName } from "@core/predict/reading";
import { nameOfRepair } from "@words/partName";
import { wordingOf } from "@words/tests/index";
import { testWords } from "@words/tests/testText";
import { diagnosisOf } from "../job/diagnosis.server";
import type { JobView } from "../job/jobView.server";

/** A look to come, in words, and what would follow. */
export interface LookaheadView {
  readonly words: string;
  readonly minutes: number;
  readonly outcomes: readonly {
    readonly seen: string;
    readonly p: number;
    readonly repair: string;
    readonly repairP: number;
    readonly next: LookaheadView | null;
  }[];
}

/** The looks to come and the schools' minutes, as the page shows them. */
export interface LookaheadPlan {
  readonly first: LookaheadView | null;
  readonly schools: readonly StrategyCost[];
}

/** Looks shown one after another; the plan itself goes one deeper to price the schools. */
const shownDeep = 2;

/** A display's range with its unit. */
function unitOf(test: TestName, seen: string): string {
  const { unit } = wordingOf(test);
  return unit && seen !== "no end" ? `${seen} ${unit}` : seen;
}

export function lookaheadView(view: JobView): LookaheadPlan {
  const { circuit } = view;
  const { plan = { first: null, schools: [] } } = diagnosisOf(view, { plan: true });
  const shown = (test: LookaheadTest | null, deep: number): LookaheadView | null => {
    if (!test || deep === 0) return null;
    const { before, points, between, after } = testWords(circuit, test.test);
    return {
      words: `${before} ${points.join(` ${between} `)}${after}`,
      minutes: test.minutes,
      outcomes: test.outcomes.map(({ seen, p, repair, repairP, next }) => ({
        seen: unitOf(test.test.test, seen),
        p,
        repair: nameOfRepair(circuit, repair),
        repairP,
        next: shown(next, deep - 1),
      })),
    };
  };
  return { first: shown(plan.first, shownDeep), schools: plan.schools };
}
