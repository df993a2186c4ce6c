import { z } from "zod";
import type { Pattern } from "../moment";
import { setupKeys } from "../setupKeys";
import { oddsBySuspect, tabledOdds } from "../suspectOdds";
import type { CompiledCircuit } from "../tables/compiledCircuit";
import { wordTest } from "./observation";

export const historyOf = ["heat", "bumps", "damp", "wet-carpet", "recent-work", "recall"] as const;
export const historySeen = ["yes", "no"] as const;
const historyReading = z.strictObject({
  test: z.literal("history"),
  ...setupKeys,
  of: z.enum(historyOf),
  seen: z.enum(historySeen),
});

type Asked = (typeof historyOf)[number];

/** Facts that only a complaint's pattern tells. */
type Told = Asked | "comes-and-goes" | "fades" | "cold";

/** Probability of a yes if the fault has nothing to do with it (common practice, no source). */
const soundYes: Readonly<Record<Told, number>> = {
  heat: 0.1,
  bumps: 0.08,
  damp: 0.1,
  "wet-carpet": 0.05,
  "recent-work": 0.1,
  recall: 0.04,
  "comes-and-goes": 0.05,
  fades: 0.02,
  cold: 0.03,
};

/** Probability of a yes by kind and mode of the fault (common practice, no source). */
const failedYes: Readonly<Record<Told, Readonly<Record<string, number>>>> = {
  heat: {
    thermal: 0.75,
    "fades-hot": 0.6,
    iced: 0.3,
    loose: 0.45,
    "dead-spot": 0.25,
    "worn-brushes": 0.25,
    "module dead": 0.2,
    "pin high": 0.2,
  },
  bumps: { loose: 0.55, "dead-spot": 0.35, "worn-brushes": 0.2, "wheel-loose": 0.2, chafed: 0.7 },
  damp: {
    "module dead": 0.35,
    "module full-on": 0.3,
    "module stuck": 0.25,
    "ground high": 0.35,
    "ground open": 0.3,
    "pin high": 0.22,
    "pin open": 0.18,
    "bearing-dry": 0.18,
  },
  "wet-carpet": {
    "module dead": 0.25,
    "module full-on": 0.22,
    "module stuck": 0.2,
    "ground high": 0.2,
    "ground open": 0.15,
  },
  "recent-work": {
    "pin open": 0.28,
    loose: 0.28,
    "wire open": 0.25,
    "wire to-ground": 0.25,
    "wire to-feed": 0.25,
    chafed: 0.25,
    debris: 0.2,
  },
  recall: { "module dead": 0.08, "module full-on": 0.1, "link open": 0.07, "pin high": 0.07 },
  "comes-and-goes": {
    chafed: 0.3,
    loose: 0.5,
    "dead-spot": 0.4,
    thermal: 0.3,
    "worn-brushes": 0.15,
    "fades-hot": 0.1,
  },
  fades: {
    "fades-hot": 0.6,
    iced: 0.6,
    thermal: 0.12,
    "pin high": 0.1,
    tight: 0.1,
    "worn-brushes": 0.1,
  },
  cold: { "worn-brushes": 0.12, "dead-spot": 0.12, "bearing-dry": 0.15, loose: 0.12 },
};

const toldOdds = oddsBySuspect<Told>((compiled, variant, of) => {
  const table = Object.fromEntries(
    Object.entries(failedYes[of]).map(([name, yes]) => [name, [yes, 1 - yes]]),
  );
  return tabledOdds(compiled, variant, table, [soundYes[of], 1 - soundYes[of]]);
});

/** The fact a pattern tells; three of them are also asked. */
const factOf: Readonly<Record<Pattern, Told>> = {
  "comes-and-goes": "comes-and-goes",
  fades: "fades",
  "only-cold": "cold",
  "only-hot": "heat",
  "only-wet": "damp",
  "only-bumps": "bumps",
};

/** Whether a reading tells the same as a pattern. */
export const tellsPattern = (reading: { test: string; of?: unknown }, pattern: Pattern): boolean =>
  reading.test === "history" && reading.of === factOf[pattern];

/** The odds of a pattern by suspect, and those of a cause outside the list. */
export function patternOdds(compiled: CompiledCircuit, pattern: Pattern) {
  const fact = factOf[pattern];
  const oddsAt = toldOdds(compiled, fact);
  const own = new Float64Array(historySeen.length);
  return {
    odds: (variant: number): number => {
      oddsAt(variant, 0, own);
      return own[0] as number;
    },
    blind: patternBlind,
  };
}

/** The odds that a cause outside the list shows some given pattern (judgement, no source). */
const patternBlind = 0.1;

/** Facts the customer can tell. */
export const historyTest = wordTest(historyReading, ["seen"], {
  minutes: 0.2,
  tools: [],
  form: { pick: { kind: "answer", keys: ["of"], answers: historyOf }, setup: "none", targets: {} },
  outcomes: historySeen,
  problems: () => [],
  reaches: () => [],
  candidates: () => historyOf.map((of) => ({ test: "history" as const, of })),
  odds: (compiled, { of }) => toldOdds(compiled, of),
  seen: ({ seen }) => seen,
  simulate: (vehicle, { of }) => ({ seen: z.enum(historySeen).parse(vehicle.told(of)) }),
});
