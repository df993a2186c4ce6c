// Readings as tests of the engine write them, in the set-ups they use most.
import type { inspectSeen } from "../predict/observations/inspect";
import type { Reading, TestOf } from "../predict/reading";

/** A test light, key on. */
export const light = (
  probe: string,
  clip: string,
  setting: string,
  seen: "bright" | "dim" | "dark",
): Reading => ({ test: "light", probe, clip, key: "run", setting, seen });

/** Volts against the battery's negative post `G1.-`, key on. */
export const volts = (red: string, setting: string, reads: number): Reading => ({
  test: "volts",
  red,
  black: "G1.-",
  key: "run",
  setting,
  volts: reads,
});

/** An inspection. */
export const look = (at: string, seen: (typeof inspectSeen)[number]): Reading => ({ test: "look", at, seen });

/** The motor M1 with its plug X3 off, fed straight from the battery by fused leads. */
export const fusedLeads: TestOf<"airflow"> = {
  test: "airflow",
  at: "M1",
  unplugged: ["X3"],
  bridged: [
    ["G1.+", "M1.+"],
    ["G1.-", "M1.-"],
  ],
};
