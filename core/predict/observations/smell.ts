import { z } from "zod";
import { setupKeys } from "../setupKeys";
import { oddsBySuspect, tabledOdds } from "../suspectOdds";
import { wordTest } from "./observation";

export const smellSeen = ["none", "burnt", "musty"] as const;
const smellReading = z.strictObject({ test: z.literal("smell"), ...setupKeys, seen: z.enum(smellSeen) });

const soundOdds = [0.92, 0.03, 0.05];
/** None, burnt, musty (common practice, no source). */
const failedOdds: Readonly<Record<string, readonly number[]>> = {
  tight: [0.62, 0.34, 0.04],
  seized: [0.55, 0.41, 0.04],
  "shorted-turns": [0.52, 0.44, 0.04],
  "bearing-dry": [0.82, 0.13, 0.05],
  "link open": [0.68, 0.27, 0.05],
  "element open": [0.7, 0.25, 0.05],
  "pin high": [0.68, 0.26, 0.06],
  "pin open": [0.75, 0.19, 0.06],
  "relay high": [0.8, 0.15, 0.05],
  "module dead": [0.66, 0.26, 0.08],
  "module full-on": [0.78, 0.14, 0.08],
  "filter-blocked": [0.67, 0.03, 0.3],
  "ground high": [0.8, 0.08, 0.12],
};

const smellOdds = oddsBySuspect<"vents">((compiled, variant) =>
  tabledOdds(compiled, variant, failedOdds, soundOdds),
);

/** Smelling the air at the vent. */
export const smellTest = wordTest(smellReading, ["seen"], {
  minutes: 0.2,
  tools: [],
  form: { pick: { kind: "nothing", keys: [] }, setup: "live", targets: {} },
  outcomes: smellSeen,
  problems: () => [],
  reaches: () => [],
  candidates: (compiled) => [{ test: "smell", ...compiled.runningSetups().at(-1) }],
  odds: (compiled) => smellOdds(compiled, "vents"),
  seen: ({ seen }) => seen,
  simulate: (vehicle) => ({ seen: z.enum(smellSeen).parse(vehicle.nose()) }),
});
