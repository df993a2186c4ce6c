import type { Circuit } from "@core/circuit/circuit";
import { colourWords } from "@core/circuit/wireColour";
import type { Test } from "@core/predict/reading";
import { historyWords, setupText } from "@core/predict/readingText";
import { listed } from "@core/units/wording";
import { partName } from "./partName";

/** What to do, for the head of a card: words around the points to touch. */
export interface TestWords {
  readonly before: string;
  readonly points: readonly string[];
  readonly between: string;
  readonly after: string;
  /** The set-up and how to know the point: its wire's colour, its place. */
  readonly how: string;
}

function postName(circuit: Circuit, point: string): string | null {
  const battery = circuit.parts.find(({ kind }) => kind === "battery")?.id;
  if (point === `${battery}.+`) return "feed";
  return point === `${battery}.-` ? "ground" : null;
}

/** The wire at a point, by colour: `the black with yellow wire`. */
function wireAt(circuit: Circuit, point: string): string | null {
  const colon = point.indexOf(":");
  const plug = colon > 0 ? circuit.connectors.find(({ id }) => id === point.slice(0, colon)) : undefined;
  const terminal = plug ? plug.pins[point.slice(colon + 1)] : point;
  const wires = circuit.wires.filter(({ from, to }) => from === terminal || to === terminal);
  if (wires.length === 0) return null;
  return `the ${listed(wires.map(({ colour }) => colourWords(colour)))} wire${wires.length > 1 ? "s" : ""}`;
}

/** A point in words: `X5:2: resistor pack plug, the black with yellow wire, under the dash`. */
export function whereAt(circuit: Circuit, point: string): string {
  const id = point.split(/[.:/]/)[0] ?? point;
  const place = circuit.parts.find((part) => part.id === id)?.place;
  const wire = wireAt(circuit, point);
  return [`${point}: ${partName(circuit, id)}`, wire, place].filter(Boolean).join(", ");
}

const sentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;

/** A look in words for this circuit. */
export function testWords(circuit: Circuit, test: Test): TestWords {
  const setup = sentence(setupText(test));
  const plain = (
    before: string,
    points: readonly string[],
    how: string,
    between = "",
    after = "",
  ): TestWords => ({
    before,
    points,
    between,
    after,
    how,
  });
  switch (test.test) {
    case "light":
      return plain(
        `Light clipped to ${postName(circuit, test.clip) ?? test.clip}, touch`,
        [test.probe],
        `${setup} ${sentence(whereAt(circuit, test.probe))}`,
      );
    case "volts": {
      const black = postName(circuit, test.black);
      return plain(
        "Volts, red on",
        black ? [test.red] : [test.red, test.black],
        `${setup} ${sentence(whereAt(circuit, test.red))}`,
        ", black on",
        black ? `, black on ${black}` : "",
      );
    }
    case "ohms":
      return plain(
        "Ohms from",
        [test.red, test.black],
        `${setup} Battery off, fan still. ${sentence(whereAt(circuit, test.red))}`,
        "to",
      );
    case "look":
      return plain("Look at", [test.at], sentence(whereAt(circuit, test.at)));
    case "spin":
      return plain(
        "Spin",
        [test.at],
        "Key off, hands clear until it stands still, then turn the wheel by hand.",
        "",
        "by hand",
      );
    case "airflow":
      return test.bridged
        ? plain(
            "Feed the motor directly by fused leads and feel the air:",
            [test.at ?? ""],
            `${setup} A lead without a fuse burns; keep fingers out of the wheel.`,
          )
        : plain(`Feel the air on ${airSetting(test)}`, test.at ? [test.at] : [], setup);
    case "amps":
      return plain("Clamp round", [test.around], `${setup} ${sentence(whereAt(circuit, test.around))}`);
    case "listen":
      return plain(
        test.ventCovered ? "Listen, a finger over the motor's vent hole" : "Listen to the blower",
        [],
        `${setup} Does the noise rise and fall with the speed?`,
      );
    case "smell":
      return plain("Smell the air at the vent", [], setup);
    case "history":
      return plain(`Ask: ${historyWords[test.of]}?`, [], "The customer, or the job card.");
    case "tap":
      return plain(
        "Tap or wiggle",
        [test.at],
        `${setup} A knock on a motor's case, a wiggle at a plug. ${sentence(whereAt(circuit, test.at))}`,
      );
    case "lampload":
      return plain(
        "Load lamp in place of",
        [test.lampFor],
        `${setup} At its plug or socket. ${sentence(whereAt(circuit, test.lampFor))}`,
      );
    case "swap":
      return plain(
        "Known-good relay in place of",
        [test.at],
        `${setup} Does that cure it? ${sentence(whereAt(circuit, test.at))}`,
      );
    case "ripple":
      return plain(
        "Current humps of",
        [test.at],
        `${setup} Clamp and scope: even, ragged, or none. ${sentence(whereAt(circuit, test.at))}`,
      );
  }
}

const airSetting = ({ setting, selectors }: Test): string =>
  Object.entries(selectors ?? {})
    .map(([id, position]) => `${id} ${position}`)
    .join(", ") ||
  (setting ?? "off");

/** The point a probe sits on for a look, if it has one. */
export function probePoint(test: Test): string | null {
  if (test.test === "light") return test.probe;
  return test.test === "volts" || test.test === "ohms" ? test.red : null;
}
