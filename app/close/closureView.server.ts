import { faultLabel } from "@core/diagnose/belief/learnedPrior";
import { isTemporary } from "@core/labour/workDone";
import type { Closure, ClosureFinding } from "@core/records/closure";
import type { StoredClosure } from "@db/repositories/closures.server";
import { faultTitle, repairName } from "@words/partName";
import { plainFault } from "@words/plainFault";
import type { JobView } from "../job/jobView.server";
import { dayWords } from "../text/clock";

const causeWords = {
  found: "found",
  "not-found": "looked for, not found",
  none: "normal wear",
  unsaid: "not said",
} as const;

/** The fault of a closure; where nobody said what was found in any line of work, nothing is claimed. */
function faultWordsOf({ findings }: Closure, title: string | null): string {
  if (findings && findings.length === 0) return "not said";
  return title ?? "something outside this circuit";
}

/** A closure with its fault and its root cause in words. */
export function closureView({ circuit, engine, works }: JobView, closure: Closure) {
  const titleOf = (fault: string): string => {
    const variant = engine.variants.find(({ family }) => family === fault);
    return variant ? faultTitle(circuit, variant) : "";
  };
  // What a temporary repair was for counts as not proved only for what the shop learns.
  const isStopgap = ({ round, part }: ClosureFinding): boolean =>
    works.some((line) => line.round === round && line.part === part && isTemporary(line));
  const findingText = (finding: ClosureFinding): string => {
    const name = repairName(circuit, [finding.part]);
    if (finding.fault === "sound") return `${name}: good, not the cause`;
    const title = titleOf(finding.fault) || `${name}: something outside this circuit`;
    return finding.proved || isStopgap(finding) ? title : `${title} (not proved)`;
  };
  // A fault of two parts that were both worked on is told once.
  const findingWords = (closure.findings ?? [])
    .map((finding) => ({ round: finding.round, words: findingText(finding) }))
    .filter(
      (own, at, all) =>
        all.findIndex(({ round, words }) => round === own.round && words === own.words) === at,
    );
  const variant = engine.variants.find(({ family }) => family === closure.fault);
  return {
    ...closure,
    /** When the temporary repair is to be checked again, in words. */
    followUp: closure.followUpOn ? dayWords(closure.followUpOn) : null,
    findingWords,
    faultWords: faultWordsOf(closure, variant ? faultTitle(circuit, variant) : null),
    causeText: closure.causeWords
      ? `${causeWords[closure.cause]}: ${closure.causeWords}`
      : causeWords[closure.cause],
  };
}

/**
 * What was wrong in plain words, every fault once; the shop's own words if the circuit lists none.
 */
export function wrongInPlainWords(
  { engine }: JobView,
  { closure, kind, mode }: StoredClosure,
  own: string | null,
) {
  const named = (closure.findings ?? []).flatMap(({ fault }) => {
    const variant = engine.variants.find(({ family }) => family === fault);
    return variant ? [faultLabel(engine, variant)] : [];
  });
  if (named.length === 0) return kind === "unknown" ? own : plainFault(kind, mode);
  return [...new Set(named.map((fault) => plainFault(fault.kind, fault.mode)))].join(" ");
}
