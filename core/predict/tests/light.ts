import { batteryPosts, nodeAt, pointProblems, suggestedPoints } from "../probePoints";
import { lightSeen } from "../reading";
import { mixRows, type WordTest } from "../testModel";

/** A tungsten test light between a probe and a clip: its own volts, then how an eye calls them. */
export const lightTest: WordTest<"light"> = {
  test: "light",
  gives: "word",
  minutes: 0.5,
  tool: "test-light",
  outcomes: lightSeen,
  problems: (compiled, { probe, clip }) => pointProblems(compiled, { probe, clip }),
  reaches: ({ probe }) => [probe],
  candidates: (compiled) => {
    const { plus, minus } = batteryPosts(compiled);
    const settings = compiled.netlist.circuit.settings;
    return suggestedPoints(compiled).flatMap((probe) =>
      [plus, minus]
        .filter((clip) => clip !== probe)
        .flatMap((clip) =>
          settings.map((setting) => ({ test: "light" as const, probe, clip, key: "run" as const, setting })),
        ),
    );
  },
  odds: (compiled, look) => {
    const table = compiled.table(look);
    const { plus, minus } = batteryPosts(compiled);
    const probe = nodeAt(compiled, look.probe) ?? -1;
    const clip = nodeAt(compiled, look.clip) ?? -1;
    const post = look.clip === plus ? "+" : look.clip === minus ? "-" : null;
    return mixRows(
      compiled,
      post
        ? (row, draw, out) => table.lightAtBattery(row, draw, probe, post, out)
        : (row, draw, out) => table.lightBetween(row, draw, probe, clip, out),
      lightSeen.length,
    );
  },
  seen: ({ seen }) => seen,
};
