import { z } from "zod";
import { healthySpin, mechanicalModes, spinFeels, windingSpin } from "../../motor/mechanicalMode";
import { setupKeys, thingId } from "../setupKeys";
import { oddsBySuspect } from "../suspectOdds";
import { wordTest } from "./observation";

const spinReading = z.strictObject({
  test: z.literal("spin"),
  ...setupKeys,
  at: thingId,
  seen: z.enum(spinFeels),
});

const feelOdds = oddsBySuspect((compiled, variant, at) => {
  const name = compiled.variants[variant]?.fault.names.find(({ where }) => where === at);
  const feel = name
    ? (windingSpin[name.mode] ?? mechanicalModes[name.mode]?.spin ?? healthySpin)
    : healthySpin;
  return spinFeels.map((word) => feel[word]);
});

/** Turning the motor's wheel by hand, key off and wheel still. */
export const spinTest = wordTest(spinReading, ["seen"], {
  minutes: 1.5,
  tools: [],
  form: { pick: { kind: "thing", keys: ["at"] }, setup: "none", targets: { motor: 1 } },
  touchesWheel: true,
  outcomes: spinFeels,
  problems: (compiled, { at }) =>
    compiled.netlist.motors.some(({ part }) => part.id === at)
      ? []
      : [{ code: "no-such-thing", path: "at", message: `no motor ${JSON.stringify(at)}` }],
  reaches: ({ at }) => [at],
  candidates: (compiled) => compiled.netlist.motors.map(({ part }) => ({ test: "spin", at: part.id })),
  odds: (compiled, { at }) => feelOdds(compiled, at),
  seen: ({ seen }) => seen,
  simulate: (vehicle, { at }) => ({ seen: z.enum(spinFeels).parse(vehicle.hand(at)) }),
  slip: ({ chance }) => ({ seen: chance.pick(["free", "rough", "stiff"]) }),
});
