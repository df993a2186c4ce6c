import type { LookaheadTest, StrategyCost } from "@core/diagnose/tests/lookahead";
import { nameOfRepair } from "@words/partName";
import { cardLine, outcomeText, testWords } from "@words/tests/testText";
import { diagnosisOf } from "../job/diagnosis.server";
import type { JobView } from "../job/jobView.server";

/** A following test in words, and what would come after it. */
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

/** The following tests and the strategies' minutes, as the page shows them. */
export interface LookaheadPlan {
  readonly first: LookaheadView | null;
  readonly schools: readonly StrategyCost[];
}

/** Number of tests shown in sequence; the engine looks one deeper to price the strategies. */
const shownDeep = 2;

export function lookaheadView(view: JobView): LookaheadPlan {
  const { circuit } = view;
  const { plan = { first: null, schools: [] } } = diagnosisOf(view, { plan: true });
  const shown = (test: LookaheadTest | null, deep: number): LookaheadView | null => {
    if (!test || deep === 0) return null;
    return {
      words: cardLine(testWords(circuit, test.test)),
      minutes: test.minutes,
      outcomes: test.outcomes.map(({ seen, p, repair, repairP, next }) => ({
        seen: outcomeText(test.test.test, seen),
        p,
        repair: nameOfRepair(circuit, repair),
        repairP,
        next: shown(next, deep - 1),
      })),
    };
  };
  return { first: shown(plan.first, shownDeep), schools: plan.schools };
}
