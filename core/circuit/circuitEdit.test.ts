import { readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Circuit } from "./circuit";
import { type CircuitEdit, type CircuitList, editedCircuit } from "./circuitEdit";
import { parseCircuit } from "./parseCircuit";

const shipped = (id: string): Circuit => {
  const text = readFileSync(join(process.cwd(), "demo", "circuits", `${id}.json`), "utf8");
  const parsed = parseCircuit(JSON.parse(text));
  if (!parsed.ok) throw new Error(id);
  return parsed.value;
};
const van = shipped("whimbrel-four-speed");

function after(edit: CircuitEdit, circuit = van): Circuit {
  const made = editedCircuit(circuit, edit);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return made.value;
}
const refusal = (edit: CircuitEdit): string => {
  const made = editedCircuit(van, edit);
  return made.ok ? "taken" : `${made.problems[0]?.path}: ${made.problems[0]?.message}`;
};
const wire = van.wires[0] as Circuit["wires"][number];

describe("a change to a circuit", () => {
  test("sets one value and leaves the rest, and the original circuit, unchanged", () => {
    const before = structuredClone(van);
    const made = after({ do: "set", list: "wires", id: wire.id, key: "mm2", value: 16 });
    expect(made).toEqual({ ...van, wires: [{ ...wire, mm2: 16 }, ...van.wires.slice(1)] });
    expect(van).toEqual(before);
  });

  test("reaches into elements, switch positions and pins", () => {
    const pack = after({ do: "set", list: "parts", id: "R1", key: "elements.0.ohms", value: 1.25 });
    expect(pack.parts.find(({ id }) => id === "R1")).toMatchObject({
      elements: [{ ohms: 1.25 }, {}, {}, {}],
    });
    const { connectors } = after({ do: "pin", id: "X5", pin: "1", to: "9" });
    const pins = van.connectors.find(({ id }) => id === "X5")?.pins ?? {};
    expect(connectors.find(({ id }) => id === "X5")?.pins).toEqual({
      "2": pins["2"],
      "3": pins["3"],
      "4": pins["4"],
      "9": pins["1"],
    });
  });

  test("a pin given a name that is taken swaps with it", () => {
    const pins = van.connectors.find(({ id }) => id === "X5")?.pins ?? {};
    const { connectors } = after({ do: "pin", id: "X5", pin: "1", to: "2" });
    expect(connectors.find(({ id }) => id === "X5")?.pins).toEqual({
      ...pins,
      "1": pins["2"],
      "2": pins["1"],
    });
  });

  test("colours, sizes and lengths are taken as people write them", () => {
    const taken = (key: string, value: string) =>
      after({ do: "set", list: "wires", id: wire.id, key, value }).wires[0];
    expect(taken("colour", "dark blue")).toMatchObject({ colour: "BU", colourName: "dark blue" });
    expect(taken("mm2", "10 AWG")).toMatchObject({ mm2: 5.26 });
    expect(taken("metres", "2 ft")).toMatchObject({ metres: 0.6096 });
    const shaded = after({ do: "set", list: "wires", id: wire.id, key: "colour", value: "tan" });
    const plain = after({ do: "set", list: "wires", id: wire.id, key: "colour", value: "red" }, shaded);
    expect(plain.wires[0]).toMatchObject({ colour: "RD" });
    expect(plain.wires[0]).not.toHaveProperty("colourName");
  });

  test("says that the wiring was compared, or that it was not", () => {
    expect(after({ do: "wiring", seen: false }).wiring).toBe("assumed");
    expect(after({ do: "wiring", seen: true })).not.toHaveProperty("wiring");
  });

  test("a name with spaces becomes the part's title, and its id is made from it", () => {
    const { parts, wires } = after({ do: "rename", list: "parts", id: "M1", to: "blower motor" });
    expect(parts.find(({ id }) => id === "blower-motor")).toMatchObject({ title: "blower motor" });
    expect(wires.some(({ to }) => to.startsWith("blower-motor."))).toBe(true);
  });

  test("a wire's size alone does not make its guessed colour known; the colour does, even the same one", () => {
    const guess = after({ do: "set", list: "wires", id: wire.id, key: "assumed", value: true });
    const sized = after({ do: "set", list: "wires", id: wire.id, key: "mm2", value: 4 }, guess);
    expect(sized.wires[0]).toHaveProperty("assumed", true);
    const seen = after({ do: "set", list: "wires", id: wire.id, key: "colour", value: wire.colour }, sized);
    expect(seen.wires[0]).not.toHaveProperty("assumed");
  });

  test("a given value is no longer a guess; a place alone says nothing about the values", () => {
    const guess = after({ do: "set", list: "parts", id: "M1", key: "assumed", value: true });
    const motor = (circuit: Circuit) => circuit.parts.find(({ id }) => id === "M1");
    expect(motor(guess)).toHaveProperty("assumed", true);
    const placed = after({ do: "set", list: "parts", id: "M1", key: "place", value: "left" }, guess);
    expect(motor(placed)).toHaveProperty("assumed", true);
    const known = after({ do: "set", list: "parts", id: "M1", key: "ratedAmps", value: 17 }, placed);
    expect(motor(known)).not.toHaveProperty("assumed");
  });

  test("a part renamed is renamed at every wire, pin and place", () => {
    const made = after({ do: "rename", list: "parts", id: "R1", to: "R9" });
    const text = JSON.stringify(made);
    expect(text).not.toMatch(/"R1[".]/);
    expect(text.match(/"R9[".]/g)).toHaveLength((JSON.stringify(van).match(/"R1[".]/g) ?? []).length);
  });

  test("a setting renamed is renamed in the switch and the panel; a second switch is left unchanged", () => {
    const made = after({ do: "setting", from: "4", to: "high" });
    expect(made.settings.at(-1)).toBe("high");
    expect(made.parts.find(({ id }) => id === "S2")).toMatchObject({ closes: { high: ["H"] } });
    expect(JSON.stringify(made)).not.toContain('"4":["H"]');
    const panel = after({ do: "setting", from: "5", to: "max" }, shipped("siskin-linear-low"));
    expect(panel.parts.find(({ kind }) => kind === "head")).toMatchObject({ commands: { max: 4.8 } });
    const truck = shipped("dunlin-rear-blower");
    const rear = (circuit: Circuit) => circuit.parts.find(({ id }) => id === "S3");
    expect(rear(after({ do: "setting", from: "off", to: "none" }, truck))).toEqual(rear(truck));
  });

  test("a pack gains a coil, and loses one", () => {
    const item = { id: "e9", from: "T1", to: "T9", ohms: 0.8 };
    const more = after({ do: "element", id: "R1", item });
    const elements = (circuit: Circuit) => {
      const pack = circuit.parts.find(({ id }) => id === "R1");
      return pack?.kind === "resistor" ? pack.elements : [];
    };
    expect(elements(more)).toEqual([...elements(van), item]);
    const last = elements(van).length;
    expect(after({ do: "set", list: "parts", id: "R1", key: `elements.${last}`, value: null }, more)).toEqual(
      van,
    );
  });

  test("a removed part takes the wires and pins that end on it with it", () => {
    const made = after({ do: "remove", list: "parts", id: "R1" });
    expect(JSON.stringify(made)).not.toMatch(/"R1[".]/);
    expect(made.wires.length).toBeLessThan(van.wires.length);
  });

  test.each<[string, CircuitEdit, RegExp]>([
    [
      "a colour of no code",
      { do: "set", list: "wires", id: wire.id, key: "colour", value: "plaid" },
      /^wires\.0\.colour: .*IEC 60757/,
    ],
    [
      "an end that is nowhere",
      { do: "set", list: "wires", id: wire.id, key: "to", value: "Q1.x" },
      /^wires\.0\.to: no part "Q1"/,
    ],
    ["a key nobody knows", { do: "set", list: "wires", id: wire.id, key: "taste", value: 1 }, /taste/],
    [
      "a name by the back door",
      { do: "set", list: "wires", id: wire.id, key: "id", value: "W99" },
      /renaming/,
    ],
    ["a path through nothing", { do: "set", list: "parts", id: "M1", key: "a.b", value: 1 }, /there is no a/],
    [
      "the prototype",
      { do: "set", list: "parts", id: "M1", key: "__proto__.x", value: 1 },
      /there is no __proto__/,
    ],
    ["an item that is not there", { do: "remove", list: "wires", id: "W999" }, /there is no W999/],
    ["a name that is taken", { do: "rename", list: "parts", id: "R1", to: "M1" }, /duplicate id "M1"/],
    [
      "a setting that is taken",
      { do: "setting", from: "3", to: "4" },
      /settings\.3: there is a setting 4 already/,
    ],
    [
      "a coil for what is no pack",
      { do: "element", id: "M1", item: { id: "e", from: "A", to: "B", ohms: 1 } },
      /no pack M1/,
    ],
    [
      "a coil of a name that is taken",
      { do: "element", id: "R1", item: { id: "e1", from: "A", to: "B", ohms: 1 } },
      /duplicate element "e1"/,
    ],
    ["the only battery", { do: "remove", list: "parts", id: "G1" }, /exactly one battery/],
  ])("%s is refused by its place", (_, edit, words) => {
    expect(refusal(edit)).toMatch(words);
  });

  test("for any input, the answer is a circuit that parses or a named problem", () => {
    const lists: readonly CircuitList[] = ["parts", "connectors", "wires", "places"];
    const ids = lists.flatMap((list) =>
      (van[list] as readonly { id: string }[]).map(({ id }) => ({ list, id })),
    );
    const value = fc.oneof(
      fc.string({ maxLength: 20 }),
      fc.double(),
      fc.boolean(),
      fc.constant(null),
      fc.array(fc.string({ maxLength: 6 }), { maxLength: 4 }),
    );
    const key = fc.constantFrom(
      "from",
      "to",
      "colour",
      "mm2",
      "metres",
      "assumed",
      "kind",
      "ohms",
      "amps",
      "elements.0",
      "elements.0.ohms",
      "closes.1",
      "pins.1",
      "pins.7",
      "parts",
      "minutes",
      "constructor",
      "toString.x",
    );
    fc.assert(
      fc.property(fc.constantFrom(...ids), key, value, (item, own, cell) => {
        const made = editedCircuit(van, { do: "set", ...item, key: own, value: cell });
        if (made.ok) expect(parseCircuit(made.value)).toEqual(made);
        else for (const { message } of made.problems) expect(message.length).toBeGreaterThan(0);
      }),
      { numRuns: 400 },
    );
  });
});
