// Which fault of a part readings prove (docs/engine.md, the table of proofs; common practice, no source).
import { expect, test } from "@jest/globals";
import type { Reading } from "../../predict/reading";
import { heard, shippedEngine } from "../../testing/shippedCircuit";
import { fusedLeads, look } from "../../testing/takenReadings";
import { faultProved } from "./faultProved";

const engine = shippedEngine("whimbrel-four-speed");
const dead = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "none" });
const proved = (family: string, readings: readonly Reading[]): boolean =>
  faultProved(
    engine,
    readings,
    engine.variants.findIndex((own) => own.family === family),
  );

test.each<[string, string, readonly Reading[], boolean]>([
  ["a motor that runs no better on fused leads", "M1:open", [...dead, { ...fusedLeads, seen: "none" }], true],
  ["a motor that runs on fused leads", "M1:open", [...dead, { ...fusedLeads, seen: "normal" }], false],
  ["a complaint alone", "M1:open", dead, false],
  ["a melted plug proves the plug", "X5:1:open", [...dead, look("X5", "melted")], true],
  ["and not the pack behind it", "R1.link:open", [...dead, look("X5", "melted")], false],
  [
    "a tight motor and the link it opened need a proof each",
    "M1:tight+R1.link:open",
    [...dead, { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null }],
    false,
  ],
])("%s", (_, family, readings, expected) => expect(proved(family, readings)).toBe(expected));

test("a fault that is none is not proved", () => expect(faultProved(engine, dead, -1)).toBe(false));
