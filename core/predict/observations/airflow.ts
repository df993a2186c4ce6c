import { z } from "zod";
import { plugsOf } from "../../circuit/plugs";
import { patterns } from "../moment";
import { batteryPosts } from "../probePoints";
import { setupKeys, thingId } from "../setupKeys";
import type { CompiledCircuit } from "../tables/compiledCircuit";
import { roughNormalCdf } from "../tables/normal";
import { airflowSeen } from "./airflowSeen";
import { patternOdds } from "./history";
import { mixRows, type TestIn, wordTest } from "./observation";

export const airflowReading = z.strictObject({
  test: z.literal("airflow"),
  ...setupKeys,
  at: thingId.optional(),
  seen: z.enum(airflowSeen),
  /** How the symptom comes and goes; what is seen is then what it gives while failing. */
  pattern: z.enum(patterns).optional(),
});
type AirflowTest = TestIn<typeof airflowReading, "seen">;

/** Width of the judgement as a log ratio: by hand at the vent, and as told by a customer. */
const handSpread = 0.12;
const heardSpread = 0.2;

/** Shares of healthy airflow that separate none from weak, weak from normal, and normal from strong. */
const shares = { none: 0.08, weak: 0.75, normal: 1.25 } as const;
/** The same as shares of top speed, for settings in which a healthy vehicle is off. */
const strayShares = { none: 0.08, weak: 0.5 } as const;

/** A blower that runs on: whether it stops once an electronic control's plug is off. */
function stopsUnplugged({ netlist: { circuit } }: CompiledCircuit, part: string): AirflowTest {
  const [setting = "off"] = circuit.settings;
  return { test: "airflow", key: "run", setting, unplugged: plugsOf(circuit, part) };
}

/**
 * Each wire of an electronic part's plug joined to the part's own pin by a fused lead, with the plug off: if the blower
 * runs, the plug's contacts are bad, and otherwise the part (common practice, no source).
 */
function plugBypassed(compiled: CompiledCircuit, part: string): AirflowTest[] {
  const { circuit } = compiled.netlist;
  const unplugged = plugsOf(circuit, part);
  const bridged = circuit.connectors.flatMap(({ id, pins }) =>
    unplugged.includes(id)
      ? Object.entries(pins).map(([pin, terminal]): [string, string] => [`${id}:${pin}`, terminal])
      : [],
  );
  const top = compiled.runningSetups().at(-1);
  return top && bridged.length > 0 ? [{ test: "airflow", ...top, unplugged, bridged }] : [];
}

/** Air at the vent compared with a healthy vehicle in this setting. */
export const airflowTest = wordTest(airflowReading, ["seen"], {
  minutes: 0.3,
  tools: [],
  form: { pick: { kind: "nothing", keys: [] }, setup: "live", targets: {} },
  outcomes: airflowSeen,
  problems: (compiled, { at }) =>
    at === undefined || compiled.netlist.motors.some(({ part }) => part.id === at)
      ? []
      : [{ code: "no-such-thing", path: "at", message: `no motor ${JSON.stringify(at)}` }],
  reaches: () => [],
  candidates: (compiled) => {
    const { motors, circuit, points } = compiled.netlist;
    const { plus, minus } = batteryPosts(compiled);
    return [
      ...circuit.settings.map((setting) => ({ test: "airflow" as const, key: "run" as const, setting })),
      ...compiled
        .liveSetups()
        .filter(({ selectors }) => selectors)
        .flatMap((setup) =>
          motors.slice(1).map(({ part }) => ({ test: "airflow" as const, at: part.id, ...setup })),
        ),
      ...compiled.netlist.modules.map(({ part }) => stopsUnplugged(compiled, part.id)),
      ...[...compiled.netlist.modules, ...compiled.netlist.heads].flatMap(({ part }) =>
        plugBypassed(compiled, part.id),
      ),
      // The motor fed directly, with its plug disconnected.
      ...compiled.brushedMotors().flatMap((part): AirflowTest[] => {
        const plug = points.pinOnTerminal.get(`${part.id}.+`);
        if (!plug) return [];
        return [
          {
            test: "airflow",
            at: part.id,
            unplugged: [plug.slice(0, plug.indexOf(":"))],
            bridged: [
              [plus, `${part.id}.+`],
              [minus, `${part.id}.-`],
            ],
          },
        ];
      }),
    ];
  },
  odds: (compiled, test, heard) => {
    const table = compiled.table(test);
    const motor = Math.max(
      0,
      compiled.netlist.motors.findIndex(({ part }) => part.id === test.at),
    );
    const spread = heard ? heardSpread : handSpread;
    const top = compiled.topSpeed[motor] ?? 0;
    const healthy = table.airflowAt(0, 0, motor);
    const stray = healthy < shares.none * top;
    const measure = stray ? top : healthy;
    const below = (share: number, level: number): number =>
      roughNormalCdf((Math.log(share) - Math.log(Math.max(level, 1e-6))) / spread);
    return mixRows(
      compiled,
      (row, sample, out) => {
        const bias = compiled.samples[sample]?.airflowBias ?? 1;
        const level = measure > 0 ? (bias * table.airflowAt(row, sample, motor)) / measure : 0;
        const none = below(stray ? strayShares.none : shares.none, level);
        const weak = below(stray ? strayShares.weak : shares.weak, level);
        const normal = stray ? weak : below(shares.normal, level);
        out[0] = none;
        out[1] = weak - none;
        // Told of a blower that should be off, "normal" means only that it blows, however strongly.
        out[2] = stray && heard ? 1 - none : normal - weak;
        out[3] = 1 - normal;
      },
      airflowSeen.length,
    );
  },
  seen: ({ seen }) => seen,
  also: (compiled, { pattern }) => (pattern ? patternOdds(compiled, pattern) : null),
  simulate: (vehicle, test) => ({ seen: vehicle.airflow(test) }),
  slip: ({ chance }) => ({ seen: chance.pick(["none", "weak", "normal"]) }),
});
