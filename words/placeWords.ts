import { notListed, type Repair } from "@core/fault/repair";
import { ampsText, listed, ohmsText, voltsText } from "@core/units/wording";
import type { Place, RepairPlace } from "@core/wiring/place";
import { absentPlace, type PlaceReading } from "@core/wiring/placeReading";
import { placesOf } from "@core/wiring/placeRepair";
import type { PlaceTest } from "@core/wiring/placeTest";
import { modeText } from "./partName";
import { capitalised } from "./seenName";
import { airflowWords, patternWords, takenWords } from "./stateWords";
import { questionWords } from "./tests/history";
import { wordingOf } from "./tests/index";

/** What a technician calls the places of a vehicle without a diagram, and what is repaired there. */
const placeNames: Readonly<Record<Place | RepairPlace, string>> = {
  "motor-plug": "blower motor plug",
  "motor-plug-2": "second blower motor's plug",
  "pack-plug": "resistor pack plug",
  "module-plug": "control module plug",
  "switch-plug": "speed switch plug",
  "panel-plug": "climate panel plug",
  motor: "blower motor",
  "motor-2": "second blower motor",
  pack: "resistor pack",
  module: "control module",
  switch: "speed switch",
  panel: "climate panel",
  relay: "blower relay",
  fuses: "blower fuses",
  grounds: "blower's ground point",
  fuse: "blower fuse",
  feed: "feed wiring",
  ground: "ground wiring",
  command: "command wire",
  battery: "battery",
  duct: "air filter or duct",
};

/** A place by name, without its article. */
export const placeName = (place: Place | RepairPlace): string => placeNames[place];

/** What a repair is done to: `blower motor and resistor pack`. */
export const placeRepairText = (repair: Repair): string =>
  repair === notListed ? "something else" : listed(placesOf(repair).map(placeName));

/** A fault by place in words: `resistor pack: open`. */
export function placeFaultText(repair: Repair, modes: readonly string[]): string {
  if (repair === notListed) return "something outside these ways of wiring";
  return `${placeRepairText(repair)}: ${modes.map(modeText).join(", then ")}`;
}

/** The key and the speed of a test: `key on, speed 2`. */
function setupWords({ key, setting, engine }: PlaceTest | PlaceReading): string {
  const keyText = key === "run" ? "key on" : key === "acc" ? "key at accessory" : "key off";
  return [
    keyText,
    ...(engine ? ["engine running"] : []),
    ...(setting === undefined ? [] : [setting === "0" ? "blower off" : `speed ${setting}`]),
  ].join(", ");
}

/** Where a lead goes: `pin a of the blower motor plug`. */
function leadText(end: string): string {
  const [place = "", label] = end.split(":");
  if (label) return `pin ${label} of the ${placeNames[place as Place] ?? place}`;
  return end === "ground" ? "ground" : "a feed";
}

const clipText = (clip: "ground" | "feed"): string => (clip === "ground" ? "ground" : "battery positive");

/** Whether a test measures the battery itself. */
const isBattery = (test: PlaceTest): boolean =>
  test.test === "volts" && !("at" in test) && test.red === "feed" && test.black === "ground";

/** A test by place in a few words: `test light at the blower motor plug, clip on ground`. */
export function placeTestText(test: PlaceTest): string {
  const at = "at" in test && test.at ? `the ${placeNames[test.at]}` : "";
  switch (test.test) {
    case "light":
      return test.at === "fuses"
        ? `test light on ${at}`
        : `test light at ${at}, clip on ${clipText(test.clip)}`;
    case "volts":
      if (isBattery(test)) return "volts across the battery";
      if (!("at" in test)) return `volts from ${leadText(test.red)} to ${leadText(test.black)}`;
      return "black" in test ? `volts at ${at}, black on ground` : `volts at ${at}, red on battery positive`;
    case "ohms":
      return `ohms into ${at}, from pin ${test.from}`;
    case "amps":
      return `clamp meter on the wire at ${leadText(test.around)}`;
    case "airflow":
      if (test.leads) return "air with the motor on fused leads";
      if (test.unplugged) return `air with the ${placeNames[test.unplugged]} unplugged`;
      return test.setting === "0" || test.setting === undefined
        ? "air with the blower off"
        : `air at speed ${test.setting}`;
    case "lampload":
      return `load lamp at the ${placeNames[test.lampFor]}`;
    case "wires":
      return `count the wires at ${at}`;
    case "look":
      return `inspect ${at}`;
    case "spin":
      return `turn ${at} by hand`;
    case "listen":
      return test.ventCovered ? "listen with a finger over the motor's vent hole" : "listen to the blower";
    case "smell":
      return "smell at the vents";
    case "history":
      return `ask: ${questionWords[test.of]}?`;
    case "tap":
      return test.at.endsWith("-plug") ? `wiggle ${at}` : `tap ${at}`;
    case "swap":
      return `known-good relay in place of ${at}`;
    case "ripple":
      return `current ripple of ${at}`;
  }
}

const pinsHow =
  "Leave the plug on and touch each pin from behind, beside its wire. Give every cavity a letter, and keep the letters for the whole job.";

/** How a test is done, in sentences. */
export function placeTestHow(test: PlaceTest): string {
  const setup = `${setupWords(test)}.`;
  const setupSentence = capitalised(setup);
  switch (test.test) {
    case "light":
      return test.at === "fuses"
        ? `${setupSentence} Find the blower's fuses by the diagram on the box's lid. Touch the two points on top of each.`
        : `${setupSentence} ${pinsHow}`;
    case "volts":
      if ("at" in test) return `${setupSentence} ${pinsHow}`;
      return isBattery(test)
        ? `${setupSentence} Red lead on the battery's positive post, black lead on its negative post.`
        : setupSentence;
    case "ohms":
      return `${setupSentence} Pull the plug and measure the part's own pins, from pin ${test.from} to each other one.`;
    case "airflow":
      return test.leads
        ? "Pull the motor's plug. Feed the motor with fused leads, the battery last, and feel the air. If it stays still, swap the leads."
        : test.unplugged
          ? `${setupSentence} Pull the ${placeNames[test.unplugged]} and feel the air at the vents. Plug it in again afterwards.`
          : `${setupSentence} Feel the air at the vents.`;
    case "lampload":
      return `${setupSentence} Pull the plug and put the load lamp across its contacts in place of the motor.`;
    case "wires":
      return "Give every cavity a letter. Say whether its wire is thick, like the motor's, or thin.";
    case "look":
      return "Check for burnt or green contacts, melted plastic, water and dirt.";
    case "spin":
      return "Key off. Turn the wheel with a finger.";
    case "swap":
      return `${setupSentence} Does that cure the fault?`;
    case "ripple":
      return `${setupSentence} With a clamp and a scope: is the ripple even, uneven or missing?`;
    default:
      return setupSentence;
  }
}

const figures = { volts: voltsText, ohms: ohmsText, amps: ampsText } as const;

const fuseWords: Readonly<Record<string, string>> = {
  good: "both points lit",
  blown: "one point lit",
  dead: "neither point lit",
};

/** A word that a test can give, on a button. */
export const placeResultWord = (test: PlaceTest, seen: string): string =>
  test.test === "light" && test.at === "fuses" ? (fuseWords[seen] ?? seen) : wordingOf(test.test).word(seen);

const eachLabel = <V>(values: Readonly<Record<string, V>>, text: (value: V) => string): string =>
  Object.entries(values)
    .sort(([one], [other]) => (one < other ? -1 : 1))
    .map(([label, value]) => `${label} ${text(value)}`)
    .join(", ");

/** The result of a reading by place: `a bright, b dark`. */
export function placeResultText(reading: PlaceReading): string {
  if ("absent" in reading) return "there is none";
  switch (reading.test) {
    case "light":
      return eachLabel<string>(reading.seen, (seen) =>
        reading.at === "fuses" ? (fuseWords[seen] ?? seen) : seen,
      );
    case "wires":
      return eachLabel<string>(reading.seen, (seen) => seen);
    case "volts":
      return typeof reading.volts === "number"
        ? figures.volts(reading.volts)
        : eachLabel(reading.volts, figures.volts);
    case "ohms":
      return eachLabel(reading.ohms, figures.ohms);
    case "amps":
      return figures.amps(Math.abs(reading.amps));
    case "airflow":
      return [airflowWords[reading.seen], reading.pattern && patternWords[reading.pattern]]
        .filter(Boolean)
        .join(", ");
    case "listen":
      return reading.followsSpeed === undefined || reading.seen === "quiet"
        ? reading.seen
        : `${reading.seen}, ${reading.followsSpeed ? "follows" : "does not follow"} the speed`;
    default:
      return wordingOf(reading.test).word(reading.seen);
  }
}

/** A reading by place as the evidence lists it, without its result. */
export function placeEvidenceText(reading: PlaceReading): string {
  if ("absent" in reading) return absentPlace(reading).map(placeName).join(", ");
  const what = placeTestText(reading);
  const taken = reading.state ? `, ${takenWords[reading.state]}` : "";
  const needsSetup = !["airflow", "look", "spin", "smell", "history", "wires", "ohms"].includes(reading.test);
  return `${what}${needsSetup ? `, ${setupWords(reading)}` : ""}${taken}`;
}

/** What a forecast outcome would show: `bright, dark`. Fuses are lit at two points each. */
export function placeOutcomeText(test: PlaceTest, seen: string): string {
  if (seen === "absent") return "the vehicle has none";
  if (test.test === "wires") return seen;
  const fuse: Readonly<Record<string, string>> = {
    "bright/bright": "both lit",
    "bright/dark": "one lit",
    "dark/dark": "neither lit",
  };
  return seen
    .split(", ")
    .map((own) => fuse[own] ?? placeResultWord(test, own))
    .join(", ");
}
