import { batteryPosts, nodeAt, pointProblems, suggestedPoints } from "../probePoints";
import { lightSeen } from "../reading";
import { mixRows, type WordObservation } from "./observation";

/** Shares of the battery's volts above which a point is fed, and below which it is grounded. */
const mostlyFeed = 0.7;
const mostlyGround = 0.3;

/** A tungsten test light between a probe and a clip: its own volts, then how an eye calls them. */
export const lightTest: WordObservation<"light"> = {
  test: "light",
  gives: "word",
  minutes: 0.5,
  tools: ["test-light"],
  outcomes: lightSeen,
  problems: (compiled, { probe, clip }) => pointProblems(compiled, { probe, clip }),
  reaches: ({ probe }) => [probe],
  candidates: (compiled) => {
    const { plus, minus } = batteryPosts(compiled);
    const full = compiled.samples[0]?.values.restVolts ?? 0;
    return suggestedPoints(compiled).flatMap((probe) => {
      if (probe === plus || probe === minus) return [];
      const node = nodeAt(compiled, probe) ?? -1;
      return compiled.probingSetups().flatMap((setup) => {
        // Feed is looked for from ground, ground from the feed; in between, either way.
        const volts = compiled.table(setup).voltsAt(0, 0, node);
        const clips =
          volts > mostlyFeed * full ? [minus] : volts < mostlyGround * full ? [plus] : [minus, plus];
        return clips.map((clip) => ({ test: "light" as const, probe, clip, ...setup }));
      });
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
  seen: ({ seen }) => seen,
};
