import { swapSeen } from "../reading";
import { oddsBySuspect } from "../suspectOdds";
import type { WordObservation } from "./observation";

const curedOdds = [0.96, 0.04];
const sameOdds = [0.02, 0.98];

/** A known-good relay in a relay's socket: it cures what only that relay had. */
export const swapTest: WordObservation<"swap"> = {
  test: "swap",
  gives: "word",
  minutes: 1.5,
  tools: ["spare-relay"],
  outcomes: swapSeen,
  problems: (compiled, { at }) =>
    compiled.netlist.relays.some(({ part }) => part.id === at)
      ? []
      : [{ path: "at", message: `no relay ${JSON.stringify(at)}` }],
  reaches: ({ at }) => [at],
  candidates: (compiled) =>
    compiled.netlist.relays.map(({ part }) => ({
      test: "swap" as const,
      at: part.id,
      ...compiled.runningSetups().at(-1),
    })),
  odds: (compiled, { at }) =>
    oddsBySuspect(compiled, `swap ${at}`, (variant) =>
      compiled.variants[variant]?.repair === at ? curedOdds : sameOdds,
    ),
  seen: ({ seen }) => seen,
};
