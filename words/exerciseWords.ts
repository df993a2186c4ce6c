import type { Circuit } from "@core/circuit/circuit";
import type { Asked } from "@core/practice/asked";
import type { Exercise } from "@core/practice/exercise";
import type { Reading } from "@core/predict/reading";
import { ampsText, listed, minutesText, percent, voltsText } from "@core/units/wording";
import { repairName } from "./partName";
import { placeText } from "./placeText";
import { capitalised } from "./seenName";
import { speedText } from "./tests/setupText";
import { evidenceText, resultText, testText } from "./tests/testText";
import { proofText } from "./whatProves";

/** An exercise in words: the question, the choices, and the explanation. */
export interface ExerciseWords {
  readonly question: string;
  readonly answers: readonly { readonly id: string; readonly text: string }[];
  readonly why: string;
}

/**
 * Puts an exercise into words.
 * @param circuit the one it was made on
 */
export function exerciseWords(circuit: Circuit, { asked, answers }: Exercise): ExerciseWords {
  return {
    ...(asked.about === "same-visit" || asked.about === "proof"
      ? decidingTold(circuit, asked)
      : questionAndWhy(asked)),
    answers: answers.map((id) => ({ id, text: answerText(circuit, asked, id) })),
  };
}

const ghostAnswers: Readonly<Record<string, string>> = {
  joint: "The feed comes through thousands of ohms: there is a bad joint before this pin",
  good: "The feed is good and the light is broken",
  ground: "The motor's ground is missing",
  motor: "The motor is seized",
};

const killerText = (id: string, ground: string | null): string =>
  ({
    tight: "a motor that is hard to turn",
    filter: "an air filter full of leaves",
    brushes: "worn brushes",
    ground: `a corroded ground ${ground ?? ""}`,
  })[id] ?? id;

function answerText(circuit: Circuit, asked: Asked, id: string): string {
  if (asked.about === "same-visit") {
    const own = asked.offered.find((offered) => offered.id === id);
    return own ? capitalised(testText(circuit, own.test)) : id;
  }
  if (asked.about === "proof") {
    const own = asked.offered.find((offered) => offered.id === id);
    return own ? readingText(circuit, own.reading) : id;
  }
  if (asked.about === "ghost-volts") return ghostAnswers[id] ?? id;
  return asked.about === "killer" ? killerText(id, asked.ground) : id;
}

type Told = Pick<ExerciseWords, "question" | "why">;
type About<Name extends Asked["about"]> = Extract<Asked, { about: Name }>;

/** A reading as an answer: the test, its set-up and its result. */
const readingText = (circuit: Circuit, reading: Reading): string =>
  `${capitalised(evidenceText(circuit, reading))}: ${resultText(reading)}`;

type Deciding = "same-visit" | "proof";

function decidingTold(circuit: Circuit, asked: About<Deciding>): Told {
  if (asked.about === "same-visit") {
    const others = asked.offered.filter(({ id }) => id !== asked.right);
    const own = asked.offered.find(({ id }) => id === asked.right);
    return {
      question: `You have opened one place, ${placeText(asked.place)}, which took ${minutesText(asked.placeMinutes)}. Which of these tests can you do before you leave, without opening anything else?`,
      why: `It takes ${minutesText(own?.minutes ?? 0)} from here. The others need another place opened first: ${listed(others.map(({ minutes }) => minutesText(minutes)))}. Getting to a place is paid once, so do what is worth doing there on the same visit.`,
    };
  }
  const name = repairName(circuit, [asked.part]);
  const others = asked.offered.filter(({ proves }) => !proves);
  return {
    question: `${asked.alive === null ? "Every speed is dead" : `Only ${speedText(asked.alive)} blows`}. Which of these readings proves that the ${name} has failed?`,
    why: `${proofText(circuit, asked.part, asked.says)}. That is proof. The others leave it at ${listed(others.map(({ p }) => percent(p)))}, and being almost sure is how the wrong part gets bought.`,
  };
}

function questionAndWhy(asked: Exclude<Asked, About<Deciding>>): Told {
  switch (asked.about) {
    case "working-speed":
      return {
        question: `The blower works as it should on ${asked.setting}. Which of these does that prove good?`,
        why: `On ${asked.setting} ${listed(asked.carrying.map(({ id, amps }) => `${id} carries ${ampsText(amps)}`))}. ${listed(asked.idle)} ${asked.idle.length === 1 ? "carries no current there, so it is" : "carry no current there, so they are"} not proved.`,
      };
    case "dead-speeds":
      return {
        question: `Only ${asked.alive} works; every other speed is dead. Which of these alone would explain it?`,
        why: `${asked.right} carries current on every dead speed and on none that works. ${listed(asked.wrong)} ${asked.wrong.length === 1 ? "carries" : "carry"} the current of ${asked.alive}, which works.`,
      };
    case "light":
      return lightTold(asked);
    case "drop-under-load":
      return {
        question: `${asked.wire} has a bad joint of ${asked.ohms} Ω. The blower runs on ${asked.setting} and draws ${ampsText(asked.amps)}. The meter is connected from ${asked.ends[0]} to ${asked.ends[1]}. What does it show?`,
        why: `Volts are amps times ohms: ${ampsText(asked.amps)} through ${asked.ohms} Ω and the wire itself drop ${voltsText(asked.badVolts)}. The same wire drops ${voltsText(asked.soundVolts)} when it is good.`,
      };
    case "drop-without-load":
      return {
        question: `${asked.wire} has a bad joint of ${asked.ohms} Ω. The motor plug ${asked.plug} is unplugged and the switch is on ${asked.setting}. The meter is connected across the joint, from ${asked.ends[0]} to ${asked.ends[1]}. What does it show?`,
        why: `Without current there is no drop: with the motor unplugged, the bad joint looks good. With the motor plugged in it would drop ${voltsText(asked.loadedVolts)}. Measure a joint while its current flows.`,
      };
    case "ghost-volts":
      return {
        question: `The motor plug ${asked.plug} is unplugged. A 10 MΩ meter shows ${voltsText(asked.meterVolts)} from ${asked.pin} to ground, and a 3 W test light there stays ${asked.called}. What is wrong?`,
        why: `There are ${Math.round(asked.ohms / 100) / 10} kΩ before ${asked.pin}. The meter draws about a millionth of an amp, so nearly nothing drops there; the light needs a quarter of an amp, so everything does. Test anything that has to carry a load under a load.`,
      };
    case "ground-off":
      return groundTold(asked);
    default:
      return motorTold(asked);
  }
}

type AboutMotor =
  | "humps-a-turn"
  | "rpm-from-humps"
  | "killer"
  | "moved-and-starts"
  | "command-volts"
  | "cleared-by-command";

function motorTold(asked: About<AboutMotor>): Told {
  switch (asked.about) {
    case "humps-a-turn":
      return {
        question: `A motor has ${asked.bars} bars and ${asked.poles} poles, with one brush a pole. How many ripples does its current have in one turn?`,
        why: `The least common multiple of ${asked.bars} and ${asked.poles} is ${asked.perTurn}. ${asked.bars % asked.poles === 0 ? "The brushes change bars at the same time." : "The brushes change bars one after the other."}`,
      };
    case "rpm-from-humps":
      return {
        question: `A motor with ${asked.bars} bars and ${asked.poles} poles makes ${Math.round(asked.hertz)} ripples per second. How fast does it turn?`,
        why: `${asked.bars} bars and ${asked.poles} poles make ${asked.perTurn} ripples per turn. ${Math.round(asked.hertz)} ripples per second are ${(asked.hertz / asked.perTurn).toFixed(1)} turns per second, or ${asked.rpm} rpm.`,
      };
    case "killer":
      return {
        question: "The resistor pack burnt out. Which of these would have overheated it?",
        why: `When it is good, the motor draws ${ampsText(asked.healthyAmps)} on ${asked.setting}. ${listed(asked.offered.map(({ id, amps }) => `With ${killerText(id, asked.ground)} it draws ${ampsText(amps)}`))}. Only more current than it is made for burns out a pack. A blocked filter lowers the current, but it also takes away the pack's cooling air.`,
      };
    case "moved-and-starts":
      return {
        question: `The blower is dead on every speed, but on some roads it comes back. With the key on and the switch on ${asked.setting}, ${asked.isMotor ? `you tap ${asked.at}` : `you wiggle ${asked.at}`} and it starts. What is most likely now?`,
        why: `${asked.part} went from ${percent(asked.pBefore)} to ${percent(asked.pAfter)}: when moving something cures the fault, the fault is in what you moved. A part that is fully open does not recover with a wiggle.`,
      };
    case "command-volts":
      return {
        question: `${asked.head} tells ${asked.module} the speed by the volts on ${asked.point}: ${asked.range[0]} V is off and ${asked.range[1]} V is full speed. How many volts are there on ${asked.setting}?`,
        why: `On ${asked.setting} ${asked.head} puts ${voltsText(asked.volts)} on the wire. ${asked.module} makes the motor's volts; the command wire never carries battery voltage.`,
      };
    case "cleared-by-command":
      return {
        question: `No speed works. The test light shows feed and ground at ${asked.module}, and ${asked.point} has ${voltsText(asked.volts)} on ${asked.setting}, as it should. Which of these is cleared?`,
        why: `The right volts on the command wire clear ${asked.head} and what feeds it; the light clears feed and ground. What is left: ${listed(asked.left.map(({ part, p }) => `${part} (${percent(p)})`))}. A lamp in place of the motor tells them apart.`,
      };
  }
}

function lightTold({ setting, probe, toFeed, called, floats, volts, ohms }: About<"light">): Told {
  const clip = toFeed ? "feed" : "ground";
  return {
    question: `The vehicle is good, the key is on, the switch is on ${setting}. The test light is clipped to ${clip} and touches ${probe}. How does it light?`,
    why: floats
      ? `${probe} has no path to feed or ground here: it floats, and the light stays dark on either clip.`
      : `There are ${voltsText(volts)} between ${probe} and ${clip}, behind ${ohms < 1000 ? `${ohms.toFixed(1)} Ω` : "thousands of ohms"}: the light is ${called}.`,
  };
}

function groundTold({ ground, pin, setting, toFeed, called, volts }: About<"ground-off">): Told {
  return {
    question: `Ground ${ground} has come off. The key is on and the switch is on ${setting}. The test light is clipped to ${toFeed ? "feed" : "ground"} and touches ${pin}, the motor's negative side. How does it light?`,
    why: `With ${ground} off no current flows, so the motor drops nothing: its negative side is at ${voltsText(volts)}, like its positive side. ${toFeed ? "There is nothing between feed and feed to light the lamp." : `To ground the light is ${called}, through the motor's winding: a motor with volts on both sides has lost its ground.`}`,
  };
}
