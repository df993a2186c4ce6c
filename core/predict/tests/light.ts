import { batteryPosts, nodeAt, pointProblems, suggestedPoints } from "../probePoints";
import { lightSeen } from "../reading";
import { mixRows, type WordTest } from "../testModel";

/** A tungsten test light between a probe and a clip: its own volts, then how an eye calls them. */
export const lightTest: WordTest<"light"> = {
  test: "light",
  gives: "word",
  minutes: 0.5,
  tools: ["test-light"],
  outcomes: lightSeen,
  problems: (compiled, { probe, clip }) => pointProblems(compiled, { probe, clip }),
  reaches: ({ probe }) => [probe],
  candidates: (compiled) => {
    const { plus, minus } = batteryPosts(compiled);
    return suggestedPoints(compiled).flatMap((probe) =>
      [plus, minus]
        .filter((clip) => clip !== probe && probe !== plus && probe !== minus)
        .flatMap((clip) =>
          compiled.liveSetups().map((setup) => ({ test: "light" as const, probe, clip, ...setup })),
        ),
    );
  },
  odds: (compiled, look) => {
    const table = compiled.table(look);
    const probe = nodeAt(compiled, look.probe) ?? -1;
    const clip = nodeAt(compiled, look.clip) ?? -1;
    return mixRows(
      compiled,
      (row, draw, out) => table.lightOdds(row, draw, probe, clip, out),
      lightSeen.length,
    );
  },
  seen: ({ seen }) => seen,
};
