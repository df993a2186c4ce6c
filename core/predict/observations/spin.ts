import { healthySpin, mechanicalModes, spinFeels, windingSpin } from "../../motor/mechanicalMode";
import { oddsBySuspect } from "../suspectOdds";
import type { WordObservation } from "./observation";

/** The motor's wheel by hand, key off and standing still. */
export const spinTest: WordObservation<"spin"> = {
  test: "spin",
  gives: "word",
  minutes: 1.5,
  tools: [],
  outcomes: spinFeels,
  problems: (compiled, { at }) =>
    compiled.netlist.motors.some(({ part }) => part.id === at)
      ? []
      : [{ path: "at", message: `no motor ${JSON.stringify(at)}` }],
  reaches: ({ at }) => [at],
  candidates: (compiled) =>
    compiled.netlist.motors.map(({ part }) => ({ test: "spin" as const, at: part.id })),
  odds: (compiled, { at }) =>
    oddsBySuspect(compiled, `spin ${at}`, (variant) => {
      const name = compiled.variants[variant]?.fault.names.find(({ where }) => where === at);
      const feel = name
        ? (windingSpin[name.mode] ?? mechanicalModes[name.mode]?.spin ?? healthySpin)
        : healthySpin;
      return spinFeels.map((word) => feel[word]);
    }),
  seen: ({ seen }) => seen,
};
