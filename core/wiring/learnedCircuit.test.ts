import { describe, expect, test } from "@jest/globals";
import { diagnose } from "../diagnose/diagnose";
import { CompiledCircuit } from "../predict/tables/compiledCircuit";
import { buildNetlist } from "../solve/buildNetlist";
import { placeComplaint } from "../testing/placeComplaint";
import { CandidateCache } from "./compiledCandidate";
import { type LearnedCircuit, learnedCircuit } from "./learnedCircuit";
import type { PlaceReading } from "./placeReading";
import { believeWiring } from "./wiringBelief";

const cache = new CandidateCache();
const seen = { speeds: 4, speedPart: "pack", steering: "right" } as const;
/** A ground-side car whose pack is open between all its pins but those that its elements join. */
const readings: PlaceReading[] = [
  ...placeComplaint(["none", "none", "none", "normal"]),
  {
    test: "light",
    at: "motor-plug",
    clip: "ground",
    key: "run",
    setting: "0",
    seen: { a: "bright", b: "bright" },
  },
  {
    test: "light",
    at: "motor-plug",
    clip: "ground",
    key: "run",
    setting: "4",
    seen: { a: "dark", b: "bright" },
  },
  { test: "look", at: "switch-plug", absent: true },
];

function learned(): LearnedCircuit {
  const made = learnedCircuit(believeWiring(seen, readings, cache), seen, readings, {
    id: "no-diagram-7",
    title: "grey van",
  });
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return made.value;
}

describe("the circuit that the readings tell of", () => {
  test("is the likeliest wiring, all of it marked as assumed, with the pins that were marked under their letters", () => {
    const { circuit, p } = learned();
    expect(circuit).toMatchObject({ id: "no-diagram-7", title: "grey van", steering: "right" });
    expect(p).toBeGreaterThan(0.2);
    for (const part of circuit.parts) if (part.kind !== "splice") expect(part.assumed).toBe(true);
    for (const wire of circuit.wires) expect(wire.assumed).toBe(true);
    const plug = circuit.connectors.find(({ title }) => title === "blower motor plug");
    // With the strongest speed on, a is dark, so it is the motor's ground side on such a car.
    expect(plug?.pins).toEqual({ a: "M1.-", b: "M1.+" });
    const pack = circuit.connectors.find(({ title }) => title === "resistor pack plug");
    expect(Object.keys(pack?.pins ?? {}).every((pin) => /^n\d$/.test(pin))).toBe(true);
  });

  test("is reached in the usual places: what is at the blower, at the controls, and at the fuse box", () => {
    const { circuit } = learned();
    const plug = (title: string) => circuit.connectors.find((own) => own.title === title)?.id;
    const places = new Map(circuit.places.map(({ id, parts }) => [id, parts]));
    expect(places.get("at-the-blower")).toEqual(
      expect.arrayContaining(["M1", "R1", plug("blower motor plug"), plug("resistor pack plug")]),
    );
    expect(places.get("at-the-controls")).toEqual(["S2", plug("speed switch plug")]);
    for (const { id, kind } of circuit.parts)
      if (kind === "fuse") expect(places.get("at-the-fuse-box")).toContain(id);
  });

  test("readings carry over by what their labels stand for; what says nothing of the circuit is named", () => {
    const { circuit, readings: carried, left } = learned();
    const plug = circuit.connectors.find(({ title }) => title === "blower motor plug")?.id ?? "";
    const lights = carried.filter(({ reading }) => reading.test === "light");
    expect(
      lights.map(({ from, reading }) => [from, Reflect.get(reading, "probe"), Reflect.get(reading, "seen")]),
    ).toEqual([
      [4, `${plug}:a`, "bright"],
      [4, `${plug}:b`, "bright"],
      [5, `${plug}:a`, "dark"],
      [5, `${plug}:b`, "bright"],
    ]);
    expect(left).toEqual([6]);
  });

  test("a job goes on with it: it is diagnosed like any other circuit, to the same leading part", () => {
    const { circuit, readings: carried } = learned();
    const netlist = buildNetlist(circuit, { lumpWires: true });
    if (!netlist.ok) throw new Error("it cannot be solved");
    const found = diagnose(
      new CompiledCircuit(netlist.value, { samples: 6 }),
      carried.map(({ reading }) => reading),
    );
    expect(found.ok && found.value.parts[0]?.part).toBe("R1");
  });
});
