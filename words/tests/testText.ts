import type { Circuit } from "@core/circuit/circuit";
import type { Expectation } from "@core/diagnose/explain/expectation";
import { probedPoint } from "@core/predict/probedPoint";
import type { Reading, Test } from "@core/predict/reading";
import { minutesText } from "@core/units/wording";
import { placeOf, seenName, seenText, sentence } from "../seenName";
import { patternWords, takenWords } from "../stateWords";
import { wordingOf } from "./index";
import { setupText } from "./setupText";
import type { TestWords } from "./wording";

/**
 * What to do, in a few words: `test light clipped to battery positive, touching resistor plug, pin 2 (X5:2)`.
 * @param circuit names the points; null to use their ids
 */
export const testText = (circuit: Circuit | null, test: Test): string =>
  wordingOf(test.test).toDo(test, (id) => (circuit ? seenText(circuit, id) : id));

/** The result, as a word or a figure with its unit, and how it comes and goes if the customer said. */
export const resultText = (reading: Reading): string => {
  const result = wordingOf(reading.test).result(reading);
  return reading.test === "airflow" && reading.pattern
    ? `${result}, ${patternWords[reading.pattern]}`
    : result;
};

/** The test and its result. */
export const evidenceResult = (circuit: Circuit | null, reading: Reading): string =>
  `${testText(circuit, reading)}: ${resultText(reading)}`;

/** What a test would show, as a word or a figure with its unit. */
export const expectationText = ({ test, value }: Expectation): string => {
  const { display, word } = wordingOf(test);
  return typeof value === "string" ? word(value) : (display?.(value) ?? String(value));
};

/**
 * The test, its set-up and when it was taken, as the evidence lists them. Air at a speed already names the speed, and what was told or
 * smelled needs no set-up.
 */
export function evidenceText(circuit: Circuit | null, reading: Reading): string {
  const taken = [
    reading.state && takenWords[reading.state],
    reading.temperature && reading.temperature,
    reading.minutesIn !== undefined && `after ${minutesText(reading.minutesIn)}`,
  ];
  return [testAndSetup(circuit, reading), ...taken].filter(Boolean).join(", ");
}

function testAndSetup(circuit: Circuit | null, reading: Reading): string {
  const what = testText(circuit, reading);
  if (reading.heard && reading.test !== "airflow") return what;
  if (reading.test !== "airflow") return `${what}, ${setupText(circuit, reading)}`;
  const isPlain = reading.key === "run" && !reading.engine && !reading.unplugged && !reading.bridged;
  const setup = { ...reading };
  for (const told of ["setting", "selectors"]) Reflect.deleteProperty(setup, told);
  return isPlain ? what : `${what}, ${setupText(circuit, setup)}`;
}

/**
 * One outcome of a test in words: its word, or its range with the unit.
 * @param seen as the core gives it: `dark`, `11.8…12.4`, `no end`, `300…no end`
 */
export function outcomeText(test: string, seen: string): string {
  const { unit, word } = wordingOf(test);
  if (!unit) return word(seen);
  if (seen === "no end") return "OL";
  const over = /^(.+)…no end$/.exec(seen);
  return `${over ? `over ${over[1]}` : seen} ${unit}`;
}

/** How a probe gets to its point where that is not plain to see; null where it is (common practice, no source). */
function reachText(circuit: Circuit, { unplugged = [] }: Test, point: string | null): string | null {
  const [owner = ""] = point?.split(/[.:]/) ?? [];
  if (circuit.connectors.some(({ id }) => id === owner) && point?.includes(":"))
    return unplugged.includes(owner)
      ? "Touch the pin in the loose plug."
      : "Back-probe it: from behind, beside the wire, with the plug on.";
  const relay = circuit.parts.some(({ id, kind }) => id === owner && kind === "relay");
  return relay && unplugged.includes(owner) ? "Pull the relay and touch its socket." : null;
}

/** A test in words for this circuit, for the head of a card. */
export function testWords(circuit: Circuit, test: Test): TestWords {
  const { points, also, ...rest } = wordingOf(test.test).card(circuit, test);
  const point = probedPoint(test);
  const place = placeOf(circuit, point ?? points[0] ?? "");
  const how = [
    sentence(setupText(circuit, test)),
    place && sentence(place),
    reachText(circuit, test, point),
    also,
  ].filter(Boolean);
  return {
    between: "",
    after: "",
    ...rest,
    points: points.map((point) => seenName(circuit, point)),
    how: how.join(" "),
  };
}

/** The heading of a card in one line. */
export function cardLine({ before, points, between, after }: TestWords): string {
  const named = points.map(({ name, id }) => (id === null ? name : `${name} (${id})`));
  return [before, named.join(` ${between} `), after].filter(Boolean).join(" ");
}
