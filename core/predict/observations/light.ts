import { z } from "zod";
import { lampVolts, testLight } from "../../solve/tungstenLamp";
import { batteryPosts, nodeAt, pointProblems, suggestedProbes } from "../probePoints";
import { pointName, setupKeys } from "../setupKeys";
import { mixRows, type TestIn, wordTest } from "./observation";
import type { TestedVehicle } from "./testedVehicle";

export const lightSeen = ["bright", "dim", "dark", "flickers"] as const;
const lightReading = z.strictObject({
  test: z.literal("light"),
  ...setupKeys,
  probe: pointName,
  clip: pointName,
  seen: z.enum(lightSeen),
});
type LightTest = TestIn<typeof lightReading, "seen">;

/** Shares of the battery's volts above which a point has feed, and below which it is grounded. */
const mostlyFeed = 0.7;
const mostlyGround = 0.3;

function simulated(vehicle: TestedVehicle, test: LightTest): { seen: (typeof lightSeen)[number] } {
  const { volts, ohms, buzz } = vehicle.between(test, test.probe, test.clip);
  if (buzz && vehicle.chance.uniform() < vehicle.flickerShare) return { seen: "flickers" };
  return { seen: vehicle.lampWord(lampVolts(testLight, volts, ohms)) };
}

/** A filament test light between a probe and a clip: its volts, then how an eye judges them. */
export const lightTest = wordTest(lightReading, ["seen"], {
  minutes: 0.5,
  tools: ["test-light"],
  form: { pick: { kind: "points", keys: ["probe", "clip"] }, setup: "live", targets: { point: 1 } },
  outcomes: lightSeen,
  problems: (compiled, { probe, clip }) => pointProblems(compiled, { probe, clip }),
  reaches: ({ probe }) => [probe],
  candidates: (compiled) => {
    const { plus, minus } = batteryPosts(compiled);
    const full = compiled.samples[0]?.values.restVolts ?? 0;
    return suggestedProbes(compiled).flatMap(({ point: probe, setup }) => {
      // Feed is tested against ground, ground against feed, and anything in between either way.
      const volts = compiled.table(setup).voltsAt(0, 0, nodeAt(compiled, probe) ?? -1);
      const clips =
        volts > mostlyFeed * full ? [minus] : volts < mostlyGround * full ? [plus] : [minus, plus];
      return clips.map((clip) => ({ test: "light" as const, probe, clip, ...setup }));
    });
  },
  odds: (compiled, test) => {
    const table = compiled.table(test);
    const probe = nodeAt(compiled, test.probe) ?? -1;
    const clip = nodeAt(compiled, test.clip) ?? -1;
    return mixRows(
      compiled,
      (row, sample, out) => table.lightOdds(row, sample, probe, clip, out),
      lightSeen.length,
    );
  },
  addOdds: (compiled, test, cells, joint, repairs) => {
    const node = (point: string): number => compiled.netlist.nodeOf.get(point) ?? -1;
    compiled.table(test).addLight(cells, node(test.probe), node(test.clip), joint, repairs);
  },
  seen: ({ seen }) => seen,
  simulate: simulated,
  slip: (vehicle, test) => simulated(vehicle, { ...test, probe: vehicle.chance.pick(vehicle.points) }),
});
