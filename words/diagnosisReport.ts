import type { PartBelief } from "@core/diagnose/belief/belief";
import type { LookaheadTest } from "@core/diagnose/tests/lookahead";
import { notListed, repairText } from "@core/fault/repair";
import type { DiagnosedCase } from "@core/formats/diagnoseCase";
import type { Test } from "@core/predict/reading";
import { clearedText, conflictText, declinedText, reasonText, suspectWhyText } from "./reasonWords";

/** The format's word for a cause outside the circuit's list. */
const unknown = repairText(notListed);

const partsReport = (parts: readonly PartBelief[]) =>
  parts.map(({ part, p }) => ({ part: part ?? unknown, p }));

interface LookaheadReport {
  readonly test: Test;
  readonly minutes: number;
  readonly outcomes: readonly {
    readonly seen: string;
    readonly p: number;
    readonly repair: string;
    readonly repairP: number;
    readonly next: LookaheadReport | null;
  }[];
}

const lookaheadReport = ({ test, minutes, outcomes }: LookaheadTest): LookaheadReport => ({
  test,
  minutes,
  outcomes: outcomes.map(({ seen, p, repair, repairP, next }) => ({
    seen,
    p,
    repair: repairText(repair),
    repairP,
    next: next && lookaheadReport(next),
  })),
});

/** A diagnosis for the command line: the core's values in sentences. */
export function diagnosisReport({ circuit, diagnosis }: DiagnosedCase) {
  const { id, suspects, parts, verdict, next, conflicts, declined, cleared, plan } = diagnosis;
  return {
    id,
    suspects: suspects.map(({ fault, repair, modes, p, why, group }) => ({
      fault: fault ?? unknown,
      part: repairText(repair),
      mode: fault === null ? unknown : modes.join("+"),
      p,
      why: suspectWhyText(circuit, why),
      group,
    })),
    parts: partsReport(parts),
    verdict: { ...verdict, because: verdict.because.map((reason) => reasonText(circuit, reason)) },
    next: next.map((test) => ({
      ...test,
      outcomes: test.outcomes.map((outcome) => ({ ...outcome, leaves: partsReport(outcome.leaves) })),
    })),
    conflicts: conflicts.map((conflict) => ({
      reading: conflict.reading,
      why: conflictText(circuit, conflict),
    })),
    ...(declined
      ? { declined: declined.map((own) => ({ part: own.part, why: declinedText(circuit, own) })) }
      : {}),
    ...(cleared
      ? { cleared: cleared.map((own) => ({ part: own.part, why: clearedText(circuit, own) })) }
      : {}),
    ...(plan ? { plan: { ...plan, first: plan.first && lookaheadReport(plan.first) } } : {}),
  };
}
