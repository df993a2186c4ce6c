import type { DifferenceFinding } from "@core/match/difference";

/** What a difference is told by: the old part's value, the new one's, and what follows from it. */
export type Told = readonly [old: string, fresh: string, because: string];

/** The findings of some codes. */
export type DifferenceOf<Code extends DifferenceFinding["code"]> = Extract<DifferenceFinding, { code: Code }>;
