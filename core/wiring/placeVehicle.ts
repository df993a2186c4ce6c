import type { Chance } from "../chance/chance";
import type { SimulatedVehicle } from "../practice/simulatedVehicle";
import { type Test, testOf } from "../predict/reading";
import type { PlacedCircuit } from "./candidate";
import { type LabelledPin, type Meaning, piecesOf } from "./piece";
import type { Place } from "./place";
import { type fuseStates, type PlaceReading, placeReadingSchema } from "./placeReading";
import { concreteReadings, freshLabels, type PlaceTest, withAnyResult } from "./placeTest";

/** A wire is called thick from this cross-section on, in mm² (judgement). */
const thickFrom = 1.5;

/** Says that the vehicle does not have a place that a test needs. */
const absentAt = (test: PlaceTest, place: Place): PlaceReading =>
  placeReadingSchema.parse(
    test.test === "airflow" ? { test: "look", at: place, absent: true } : { ...test, absent: true },
  );

/** A simulated vehicle that answers tests by place, with the labels somebody gave its pins. */
export class PlaceVehicle {
  private readonly labels = new Map<LabelledPin["place"], ReadonlyMap<string, Meaning>>();

  /**
   * @param places where its circuit's points are found
   * @param chance shuffles the labels
   */
  constructor(
    private readonly places: PlacedCircuit,
    private readonly vehicle: Pick<SimulatedVehicle, "netlist" | "take">,
    chance: Chance,
  ) {
    const give = (place: LabelledPin["place"], meanings: readonly Meaning[]): void => {
      const shuffled = meanings
        .map((meaning) => ({ meaning, at: chance.uniform() }))
        .sort((a, b) => a.at - b.at);
      const names = freshLabels(shuffled.length);
      this.labels.set(place, new Map(shuffled.map(({ meaning }, at) => [names[at] ?? "", meaning])));
    };
    for (const [place, { pins }] of places.plugs)
      give(
        place,
        pins.map((pin) => ({ pin, fuse: null })),
      );
    give(
      "fuses",
      places.fuses.map((fuse) => ({ pin: null, fuse })),
    );
  }

  /** The labels of a place's pins or fuses, in order; none if the vehicle has no such place. */
  labelsAt(place: string): string[] {
    for (const [own, labels] of this.labels) if (own === place) return [...labels.keys()];
    return [];
  }

  /** The answer to a test by place. */
  answer(test: PlaceTest): PlaceReading {
    const place = "at" in test && test.at ? test.at : "around" in test || "red" in test ? "motor-plug" : "";
    const labels = this.labelsAt(place);
    const pieces = piecesOf(this.places, this.vehicle.netlist, withAnyResult(test, labels));
    const meaning = ({ place: own, label }: LabelledPin): Meaning =>
      this.labels.get(own)?.get(label) ?? { pin: null, fuse: null };
    const words: Record<string, unknown> = {};
    let figure = "seen";
    let single: unknown;
    for (const piece of pieces) {
      if (piece.kind === "there") return absentAt(test, piece.place);
      if (piece.kind === "wire") {
        words[piece.of.label] = this.wireSeen(meaning(piece.of));
        continue;
      }
      const of = piece.kind === "plain" ? [] : piece.kind === "pin" ? [piece.of] : piece.of;
      const asked = concreteReadings(piece, meaning);
      const told = asked.map((reading) => this.read(testOf(reading)));
      figure = told[0]?.key ?? figure;
      const value = place === "fuses" ? fuseState(told.map(({ value: own }) => own)) : told[0]?.value;
      if (of.length > 0 && "at" in test) words[of.at(-1)?.label ?? ""] = value;
      else single = value;
    }
    const result = Object.keys(words).length > 0 ? words : single;
    return placeReadingSchema.parse({ ...test, [figure]: result });
  }

  /** The colour and size of a wire, as they are seen at a plug. */
  private wireSeen({ pin }: Meaning): string {
    const wire = this.places.circuit.wires.find(({ id }) => id === pin?.wire);
    return `${wire?.colour ?? "BK"} ${(wire?.mm2 ?? 0) >= thickFrom ? "thick" : "thin"}`;
  }

  private read(test: Test): { key: string; value: unknown } {
    const reading = this.vehicle.take(test);
    for (const key of ["volts", "ohms", "amps"] as const)
      if (key in reading) {
        const value: unknown = Reflect.get(reading, key);
        return { key, value: key === "amps" ? Math.abs(Number(value)) : value };
      }
    return { key: "seen", value: Reflect.get(reading, "seen") };
  }
}

function fuseState(ends: readonly unknown[]): (typeof fuseStates)[number] {
  const lit = ends.filter((own) => own === "bright" || own === "dim").length;
  return lit === 2 ? "good" : lit === 1 ? "blown" : "dead";
}
