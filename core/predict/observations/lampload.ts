import { z } from "zod";
import { lampEnds } from "../../solve/netlist/setup";
import { setupKeys, thingId } from "../setupKeys";
import { lampOdds } from "../tables/eye";
import { mixRows, type TestIn, wordTest } from "./observation";

export const lamploadSeen = ["bright", "dim", "dark"] as const;
const lamploadReading = z.strictObject({
  test: z.literal("lampload"),
  ...setupKeys,
  lampFor: thingId,
  seen: z.enum(lamploadSeen),
});
type LampTest = TestIn<typeof lamploadReading, "seen">;

/** The load lamp in place of a part, at its plug or socket: how bright it is. */
export const lamploadTest = wordTest(lamploadReading, ["seen"], {
  minutes: 2.5,
  tools: ["load-lamp"],
  form: { pick: { kind: "thing", keys: ["lampFor"] }, setup: "live", targets: { motor: 4, fuse: 2 } },
  outcomes: lamploadSeen,
  problems: () => [],
  reaches: ({ lampFor }) => [lampFor],
  candidates: (compiled) => {
    const lamp = (lampFor: string, setup: object): LampTest => ({
      test: "lampload",
      lampFor,
      ...setup,
    });
    const running = compiled.runningSetups();
    const worth = [running[0], running[Math.floor(running.length / 2)], running.at(-1)];
    return compiled
      .brushedMotors()
      .flatMap((part) => [...new Set(worth)].flatMap((setup) => (setup ? [lamp(part.id, setup)] : [])));
  },
  // In a fuse's socket with everything off, only a short draws current.
  shortHunt: ({ netlist: { circuit } }) =>
    circuit.parts
      .filter(({ kind }) => kind === "fuse")
      .map(({ id }) => ({
        test: "lampload",
        lampFor: id,
        key: "run",
        setting: circuit.settings[0] ?? "off",
      })),
  odds: (compiled, test) => {
    const table = compiled.table(test);
    const ends = lampEnds(compiled.netlist, test.lampFor) ?? ["", ""];
    const [a, b] = ends.map((point) => compiled.netlist.nodeOf.get(point) ?? -1) as [number, number];
    const own = new Float64Array(4);
    return mixRows(
      compiled,
      (row, sample, out) => {
        const vehicle = compiled.samples[sample];
        if (!vehicle) return;
        const volts = Math.abs(table.voltsBetween(row, sample, a, b));
        lampOdds(volts, vehicle.eyes, false, own, 0);
        const seen = (own[0] as number) + (own[1] as number) + (own[2] as number);
        for (let i = 0; i < 3; i++) out[i] = (own[i] as number) / seen;
      },
      lamploadSeen.length,
    );
  },
  seen: ({ seen }) => seen,
  simulate: (vehicle, test) => {
    const { volts } = vehicle.between(test, ...vehicle.lampEnds(test.lampFor));
    return { seen: vehicle.lampWord(Math.abs(volts)) };
  },
  slip: ({ chance }) => ({ seen: chance.pick(["bright", "dim", "dark"]) }),
});
