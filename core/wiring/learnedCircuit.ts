import type { Circuit } from "../circuit/circuit";
import { parseCircuit } from "../circuit/parseCircuit";
import type { Reading } from "../predict/reading";
import { type Parsed, type Problem, refused } from "../problem/problem";
import type { Candidate } from "./candidate";
import { type CarriedReadings, carriedReadings } from "./carriedReadings";
import type { Meanings } from "./meaning";
import { isPlug, type PartPlace, type PlugPlace, plugPlaces } from "./place";
import type { PlaceReading } from "./placeReading";
import type { SeenCar } from "./seenCar";
import type { BelievedCandidate, WiringBelief } from "./wiringBelief";

/** The likeliest wiring as a circuit, and what was read on the vehicle in that circuit's own terms. */
export interface LearnedCircuit extends CarriedReadings {
  readonly circuit: Circuit;
  /** Belief in this wiring when it was taken. */
  readonly p: number;
}

/** What the plugs of the vehicle are called. */
const plugTitles: Readonly<Record<PlugPlace, string>> = {
  "motor-plug": "blower motor plug",
  "motor-plug-2": "second blower motor's plug",
  "pack-plug": "resistor pack plug",
  "module-plug": "control module plug",
  "switch-plug": "speed switch plug",
  "panel-plug": "climate panel plug",
};

/** New names of the pins of each plug: the person's own label, or `n1`, `n2` for pins that nobody marked. */
function pinNames({ candidate }: BelievedCandidate, meanings: Meanings): Map<string, Map<string, string>> {
  const names = new Map<string, Map<string, string>>();
  for (const place of plugPlaces) {
    const plug = candidate.plugs.get(place);
    if (!plug) continue;
    const labels = new Map(
      [...(meanings.get(place) ?? [])].flatMap(([label, { pin }]) =>
        pin ? [[pin.point, label] as const] : [],
      ),
    );
    let unmarked = 0;
    names.set(
      plug.connector,
      new Map(
        plug.pins.map(({ point }) => [
          point.slice(point.indexOf(":") + 1),
          labels.get(point) ?? `n${++unmarked}`,
        ]),
      ),
    );
  }
  return names;
}

/** Where parts are on most vehicles, and the minutes to get there (common practice, no source). */
const usualPlaces: readonly {
  readonly id: string;
  readonly minutes: number;
  readonly has: readonly (PartPlace | PlugPlace)[];
}[] = [
  {
    id: "at-the-blower",
    minutes: 4,
    has: ["motor", "motor-2", "pack", "module", "motor-plug", "motor-plug-2", "pack-plug", "module-plug"],
  },
  { id: "at-the-controls", minutes: 8, has: ["switch", "panel", "switch-plug", "panel-plug"] },
  { id: "at-the-fuse-box", minutes: 2, has: ["relay", "fuses"] },
];

/** The usual places that have something of a candidate in them. */
const placesOf = ({ parts, plugs, fuses }: Candidate): Circuit["places"] =>
  usualPlaces
    .map(({ id, minutes, has }) => ({
      id,
      minutes,
      parts: has.flatMap((place) => {
        if (place === "fuses") return fuses;
        return (isPlug(place) ? plugs.get(place)?.connector : parts.get(place)) ?? [];
      }),
    }))
    .filter(({ parts: own }) => own.length > 0);

/** What is said of a circuit that nobody has seen drawn. */
const note =
  "Worked out from readings, without a diagram. Values, colours and places are assumed. A pin with a letter is the one that was marked so on the vehicle; a pin named n1, n2 and so on was not marked.";

/** The candidate's circuit with pins named as on the vehicle, and everything that nobody saw marked as assumed. */
function circuitOf(
  { candidate }: BelievedCandidate,
  names: ReadonlyMap<string, ReadonlyMap<string, string>>,
  identity: { readonly id: string; readonly title: string },
  { steering }: SeenCar,
): Parsed<Circuit> {
  const titles = new Map(
    [...candidate.plugs].map(([place, { connector }]) => [connector, plugTitles[place]]),
  );
  const { circuit } = candidate;
  return parseCircuit({
    ...circuit,
    ...identity,
    note,
    wiring: "assumed",
    places: placesOf(candidate),
    ...(steering ? { steering } : {}),
    parts: circuit.parts.map((part) => (part.kind === "splice" ? part : { ...part, assumed: true })),
    connectors: circuit.connectors.map(({ id, pins, ...rest }) => ({
      ...rest,
      id,
      title: titles.get(id),
      pins: Object.fromEntries(
        Object.entries(pins).map(([pin, terminal]) => [names.get(id)?.get(pin) ?? pin, terminal]),
      ),
    })),
  });
}

/** A point with its pin's new name. */
function renamed(point: string, names: ReadonlyMap<string, ReadonlyMap<string, string>>): string {
  const [connector = "", pin] = point.split(":");
  const name = pin === undefined ? undefined : names.get(connector)?.get(pin);
  return name === undefined ? point : `${connector}:${name}`;
}

/** A reading with the pins' new names. */
function inNames(reading: Reading, names: ReadonlyMap<string, ReadonlyMap<string, string>>): Reading {
  switch (reading.test) {
    case "light":
      return { ...reading, probe: renamed(reading.probe, names), clip: renamed(reading.clip, names) };
    case "volts":
    case "ohms":
      return { ...reading, red: renamed(reading.red, names), black: renamed(reading.black, names) };
    default:
      return reading;
  }
}

/**
 * Makes a circuit of the likeliest wiring, so that the job can go on like any other. Each reading is carried over to the
 * pin that its label most likely stands for.
 * @param belief from these readings
 * @returns refused if there is no wiring left that explains the readings
 */
export function learnedCircuit(
  { candidates: [own] }: WiringBelief,
  seen: SeenCar,
  readings: readonly PlaceReading[],
  identity: { readonly id: string; readonly title: string },
): Parsed<LearnedCircuit> {
  if (!own) {
    const problem: Problem = {
      code: "wrong-value",
      path: "readings",
      message: "no wiring explains the readings",
    };
    return refused([problem]);
  }
  const names = pinNames(own, own.meanings());
  const circuit = circuitOf(own, names, identity, seen);
  if (!circuit.ok) return circuit;
  return {
    ok: true,
    value: {
      circuit: circuit.value,
      p: own.p,
      ...carriedReadings(own, readings, (reading) => inNames(reading, names)),
    },
  };
}
