import { z } from "zod";
import { sameParts } from "../../fault/repair";
import { setupKeys, thingId } from "../setupKeys";
import { oddsBySuspect } from "../suspectOdds";
import { wordTest } from "./observation";

export const swapSeen = ["fixed", "same"] as const;
const swapReading = z.strictObject({
  test: z.literal("swap"),
  ...setupKeys,
  at: thingId,
  seen: z.enum(swapSeen),
});

const curedOdds = [0.96, 0.04];
const sameOdds = [0.02, 0.98];

const cureOdds = oddsBySuspect((compiled, variant, at) =>
  sameParts(compiled.variants[variant]?.repair.parts ?? [], [at]) ? curedOdds : sameOdds,
);

/** A known-good relay in a relay's socket: it cures only a fault of that relay. */
export const swapTest = wordTest(swapReading, ["seen"], {
  minutes: 1.5,
  tools: ["spare-relay"],
  form: { pick: { kind: "thing", keys: ["at"] }, setup: "live", targets: { relay: 1 } },
  outcomes: swapSeen,
  problems: (compiled, { at }) =>
    compiled.netlist.relays.some(({ part }) => part.id === at)
      ? []
      : [{ code: "no-such-thing", path: "at", message: `no relay ${JSON.stringify(at)}` }],
  reaches: ({ at }) => [at],
  candidates: (compiled) =>
    compiled.netlist.relays.map(({ part }) => ({
      test: "swap" as const,
      at: part.id,
      ...compiled.runningSetups().at(-1),
    })),
  odds: (compiled, { at }) => cureOdds(compiled, at),
  seen: ({ seen }) => seen,
  simulate: (vehicle, { at }) => ({ seen: swapSeen[vehicle.failedAlone(at) ? 0 : 1] }),
  slip: ({ chance }) => ({ seen: chance.pick(swapSeen) }),
});
