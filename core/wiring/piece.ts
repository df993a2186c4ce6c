import type { Reading } from "../predict/reading";
import type { Netlist } from "../solve/netlist/netlist";
import { operatingPoint } from "../solve/operatingPoint";
import type { PinRole, PlacedCircuit } from "./candidate";
import { isPlug, type Place, type PlugPlace } from "./place";
import { absentPlace, type PlaceReading } from "./placeReading";

/** A labelled pin of a plug. */
export interface LabelledPin {
  readonly place: PlugPlace | "fuses";
  readonly label: string;
}

/** What a label stands for on a candidate: a pin, a fuse, or a wire that belongs to nothing here. */
export interface Meaning {
  readonly pin: PinRole | null;
  readonly fuse: string | null;
}

/** A part of a reading, as one candidate understands it. */
export type Piece =
  /** It needs no label: a reading of the candidate's own circuit. */
  | { readonly kind: "plain"; readonly reading: Reading }
  /** It is of one label, whatever that stands for; null for a wire that belongs to nothing. */
  | { readonly kind: "pin"; readonly of: LabelledPin; readonly read: (meaning: Meaning) => Reading[] }
  /** It joins labels. */
  | {
      readonly kind: "pair";
      readonly of: readonly LabelledPin[];
      readonly read: (meanings: readonly Meaning[]) => Reading | null;
    }
  /** A wire seen at a plug. */
  | { readonly kind: "wire"; readonly of: LabelledPin; readonly heavy: boolean }
  /** A place the vehicle has or has not, against the candidate. */
  | { readonly kind: "there"; readonly place: Place; readonly seen: boolean; readonly has: boolean };

/** The set-up and what is told of the time, as a candidate's circuit has them. */
function setupOf(
  { circuit }: PlacedCircuit,
  reading: PlaceReading,
): Pick<Reading, "key" | "engine" | "setting" | "heard" | "state" | "temperature" | "minutesIn"> {
  const { key, engine, setting, heard, state, temperature, minutesIn } = reading;
  const top = circuit.settings.at(-1) ?? "0";
  const known = setting === undefined || circuit.settings.includes(setting) ? setting : top;
  return Object.fromEntries(
    Object.entries({ key, engine, setting: known, heard, state, temperature, minutesIn }).filter(
      ([, value]) => value !== undefined,
    ),
  );
}

/** Sign of the current of each wire at the strongest speed of a sound vehicle, by its `from` and `to`. */
const signs = new WeakMap<Netlist, Readonly<Record<string, number | null>>>();

/** A clamp shows no sign; a wire's own is that of a sound vehicle. */
function signed(netlist: Netlist, wire: string, amps: number): number {
  const setting = netlist.circuit.settings.at(-1) ?? "0";
  const own = signs.get(netlist) ?? operatingPoint(netlist, { key: "run", setting }, []).amps;
  signs.set(netlist, own);
  return Math.abs(amps) * (Math.sign(own[wire] ?? 0) || 1);
}

/** A reading as one candidate understands it, in pieces. */
export function piecesOf(candidate: PlacedCircuit, netlist: Netlist, reading: PlaceReading): Piece[] {
  const setup = setupOf(candidate, reading);
  const { plugs, parts } = candidate;
  const { id: battery } = netlist.battery;
  const post = (name: "ground" | "feed"): string => (name === "ground" ? `${battery}.-` : `${battery}.+`);
  const partAt = (place: Place): string | null =>
    isPlug(place)
      ? (plugs.get(place)?.connector ?? null)
      : place === "grounds"
        ? (candidate.grounds[0] ?? null)
        : (parts.get(place) ?? null);
  const has = (place: Place): boolean =>
    place === "fuses" ? candidate.fuses.length > 0 : partAt(place) !== null;
  const there = (place: Place): Piece => ({ kind: "there", place, seen: true, has: has(place) });
  if ("absent" in reading) {
    return absentPlace(reading).map((place) => ({ kind: "there", place, seen: false, has: has(place) }));
  }
  /** Readings of each label at a plug. */
  const pins = <V>(
    place: PlugPlace,
    values: Readonly<Record<string, V>>,
    made: (point: string, value: V) => Reading,
  ) =>
    has(place)
      ? Object.entries(values).map(
          ([label, value]): Piece => ({
            kind: "pin",
            of: { place, label },
            read: ({ pin }) => (pin ? [made(pin.point, value)] : []),
          }),
        )
      : [there(place)];
  /** A reading of a part at a place. */
  const atPart = (place: Place, made: (part: string) => Reading): Piece[] => {
    const part = partAt(place);
    return part ? [{ kind: "plain", reading: made(part) }] : place === "fuses" ? [] : [there(place)];
  };
  switch (reading.test) {
    case "light": {
      if (reading.at === "fuses")
        return Object.entries(reading.seen).map(
          ([label, state]): Piece => ({
            kind: "pin",
            of: { place: "fuses", label },
            read: ({ fuse }) => {
              const lit = (end: string, seen: "bright" | "dark"): Reading => ({
                test: "light",
                ...setup,
                probe: `${fuse}.${end}`,
                clip: post("ground"),
                seen,
              });
              if (!fuse) return [];
              return [
                lit("in", state === "dead" ? "dark" : "bright"),
                lit("out", state === "good" ? "bright" : "dark"),
              ];
            },
          }),
        );
      const clip = post(reading.clip);
      return pins(reading.at, reading.seen, (probe, seen) => ({
        test: "light",
        ...setup,
        probe,
        clip,
        seen,
      }));
    }
    case "volts": {
      if ("at" in reading)
        return pins(reading.at, reading.volts, (point, volts) =>
          "black" in reading
            ? { test: "volts", ...setup, red: point, black: post("ground"), volts }
            : { test: "volts", ...setup, red: post("feed"), black: point, volts },
        );
      const { volts } = reading;
      return joined(candidate, post, [reading.red, reading.black], ([red, black]) =>
        red && black ? { test: "volts", ...setup, red, black, volts } : null,
      );
    }
    case "ohms": {
      const { at, from } = reading;
      const connector = plugs.get(at)?.connector;
      if (!connector) return [there(at)];
      return Object.entries(reading.ohms)
        .filter(([label]) => label !== from)
        .map(
          ([label, ohms]): Piece => ({
            kind: "pair",
            of: [
              { place: at, label: from },
              { place: at, label },
            ],
            read: ([one, other]) =>
              one?.pin && other?.pin
                ? {
                    test: "ohms",
                    ...setup,
                    red: one.pin.terminal,
                    black: other.pin.terminal,
                    unplugged: [connector],
                    ohms,
                  }
                : null,
          }),
        );
    }
    case "amps": {
      const [place, label = ""] = reading.around.split(":");
      if (!place || !isPlug(place)) return [];
      if (!has(place)) return [there(place)];
      return [
        {
          kind: "pin",
          of: { place, label },
          read: ({ pin }) =>
            pin
              ? [{ test: "amps", ...setup, around: pin.wire, amps: signed(netlist, pin.wire, reading.amps) }]
              : [],
        },
      ];
    }
    case "airflow": {
      const { at = "motor", leads, unplugged, pattern, seen } = reading;
      const motor = parts.get(at);
      if (!motor) return [there(at)];
      const pulledPlug = unplugged && plugs.get(unplugged);
      if (unplugged && !pulledPlug) return [there(unplugged)];
      const pulled = pulledPlug ? { unplugged: [pulledPlug.connector] } : {};
      const plug = plugs.get(at === "motor" ? "motor-plug" : "motor-plug-2")?.connector ?? "";
      const onLeads = leads
        ? {
            unplugged: [plug],
            bridged: [
              [post("feed"), `${motor}.+`],
              [post("ground"), `${motor}.-`],
            ] as [string, string][],
          }
        : {};
      return [
        {
          kind: "plain",
          reading: {
            test: "airflow",
            ...setup,
            at: motor,
            ...onLeads,
            ...pulled,
            ...(pattern ? { pattern } : {}),
            seen,
          },
        },
      ];
    }
    case "lampload":
      return atPart(reading.lampFor === "motor-plug" ? "motor" : "motor-2", (part) => ({
        test: "lampload",
        ...setup,
        lampFor: part,
        seen: reading.seen,
      }));
    case "wires":
      return has(reading.at)
        ? Object.entries(reading.seen).map(
            ([label, seen]): Piece => ({
              kind: "wire",
              of: { place: reading.at, label },
              heavy: seen.endsWith("thick"),
            }),
          )
        : [there(reading.at)];
    case "look":
      return atPart(reading.at, (at) => ({ test: "look", ...setup, at, seen: reading.seen }));
    case "tap":
      return atPart(reading.at, (at) => ({ test: "tap", ...setup, at, seen: reading.seen }));
    case "spin":
      return atPart(reading.at, (at) => ({ test: "spin", ...setup, at, seen: reading.seen }));
    case "ripple":
      return atPart(reading.at, (at) => ({ test: "ripple", ...setup, at, seen: reading.seen }));
    case "swap":
      return atPart("relay", (at) => ({ test: "swap", ...setup, at, seen: reading.seen }));
    case "listen": {
      const { ventCovered, followsSpeed, seen } = reading;
      const more = {
        ...(ventCovered === undefined ? {} : { ventCovered }),
        ...(followsSpeed === undefined ? {} : { followsSpeed }),
      };
      return [{ kind: "plain", reading: { test: "listen", ...setup, ...more, seen } }];
    }
    case "smell":
      return [{ kind: "plain", reading: { test: "smell", ...setup, seen: reading.seen } }];
    case "history":
      return [{ kind: "plain", reading: { test: "history", ...setup, of: reading.of, seen: reading.seen } }];
  }
}

/** A reading between two ends, each a labelled pin or a battery post. */
function joined(
  { plugs }: PlacedCircuit,
  post: (name: "ground" | "feed") => string,
  ends: readonly string[],
  made: (points: readonly (string | null)[]) => Reading | null,
): Piece[] {
  const own = ends.map((end): LabelledPin | "ground" | "feed" => {
    const [place = "", label = ""] = end.split(":");
    return isPlug(place) ? { place, label } : end === "feed" ? "feed" : "ground";
  });
  const of = own.flatMap((end) => (typeof end === "string" ? [] : [end]));
  const missing = of.find(({ place }) => place !== "fuses" && !plugs.has(place));
  if (missing) return [{ kind: "there", place: missing.place, seen: true, has: false }];
  const points = (meanings: readonly Meaning[]): (string | null)[] => {
    let next = 0;
    return own.map((end) => (typeof end === "string" ? post(end) : (meanings[next++]?.pin?.point ?? null)));
  };
  if (of.length === 0) {
    const reading = made(points([]));
    return reading ? [{ kind: "plain", reading }] : [];
  }
  const [only] = of;
  if (of.length === 1 && only)
    return [
      {
        kind: "pin",
        of: only,
        read: (meaning) => {
          const reading = made(points([meaning]));
          return reading ? [reading] : [];
        },
      },
    ];
  return [{ kind: "pair", of, read: (meanings) => made(points(meanings)) }];
}
