import { describe, expect, test } from "@jest/globals";
import { shippedCircuit } from "../testing/shippedCircuit";
import { carriedTo } from "./carriedReadings";
import type { PlaceReading } from "./placeReading";

describe("readings by place on a circuit whose diagram was found", () => {
  const circuit = shippedCircuit("whimbrel-four-speed");
  const readings: PlaceReading[] = [
    { test: "airflow", heard: true, key: "run", setting: "1", seen: "none" },
    { test: "airflow", heard: true, key: "run", setting: "4", seen: "normal" },
    // With the strongest speed on, the motor's ground side is pulled down: b is its feed.
    {
      test: "volts",
      at: "motor-plug",
      black: "ground",
      key: "run",
      setting: "4",
      volts: { a: 0.4, b: 12.1 },
    },
    { test: "look", at: "panel", seen: "clean" },
  ];

  function carried() {
    const made = carriedTo(circuit, readings);
    if (!made.ok) throw new Error(JSON.stringify(made.problems));
    return made.value;
  }

  test("labels become the pins they most likely stand for, and settings get their own names", () => {
    const plug = circuit.connectors.find(({ pins }) => Object.values(pins)[0]?.startsWith("M1."));
    const pinOf = (terminal: string) =>
      `${plug?.id}:${Object.entries(plug?.pins ?? {}).find(([, own]) => own === terminal)?.[0]}`;
    const volts = carried().readings.filter(({ reading }) => reading.test === "volts");
    expect(
      volts.map(({ from, reading }) => [from, Reflect.get(reading, "red"), Reflect.get(reading, "volts")]),
    ).toEqual([
      [2, pinOf("M1.-"), 0.4],
      [2, pinOf("M1.+"), 12.1],
    ]);
    for (const { reading } of carried().readings)
      if (reading.setting !== undefined) expect(circuit.settings).toContain(reading.setting);
  });

  test("what the circuit does not have is left behind and named", () => {
    expect(carried().left).toEqual([3]);
  });

  test("the labels' order makes no difference", () => {
    const swapped = readings.map((reading) =>
      reading.test === "volts" && "at" in reading ? { ...reading, volts: { x: 12.1, c: 0.4 } } : reading,
    );
    const made = carriedTo(circuit, swapped);
    if (!made.ok) throw new Error("refused");
    const byPin = (all: typeof made.value) =>
      new Map(
        all.readings.flatMap(({ reading }) =>
          reading.test === "volts" ? [[reading.red, reading.volts] as const] : [],
        ),
      );
    expect(byPin(made.value)).toEqual(byPin(carried()));
  });
});
