import type { Diagnosis } from "@core/diagnose/diagnose";
import { clearedText, conflictText, declinedText, reasonText, suspectWhyText } from "./reasonWords";

/** A diagnosis as the command line writes it: what the core gives as values, in sentences. */
export function diagnosisReport(diagnosis: Diagnosis) {
  const { id, suspects, parts, verdict, next, conflicts, declined, cleared, plan } = diagnosis;
  return {
    id,
    suspects: suspects.map(({ why, ...suspect }) => ({ ...suspect, why: suspectWhyText(why) })),
    parts,
    verdict: { ...verdict, because: verdict.because.map(reasonText) },
    next,
    conflicts: conflicts.map((conflict) => ({ reading: conflict.reading, why: conflictText(conflict) })),
    ...(declined ? { declined: declined.map((own) => ({ part: own.part, why: declinedText(own) })) } : {}),
    ...(cleared ? { cleared: cleared.map((own) => ({ part: own.part, why: clearedText(own) })) } : {}),
    ...(plan ? { plan } : {}),
  };
}
