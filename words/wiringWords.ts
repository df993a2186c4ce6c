import { notListed, type Repair, repairText } from "@core/fault/repair";
import type { DiagnosedSeenCase } from "@core/formats/seenCase";
import { percent } from "@core/units/wording";
import type { WiringFacts } from "@core/wiring/candidate";
import type { WiringReason } from "@core/wiring/diagnoseWiring";
import type { PlaceForecast } from "@core/wiring/placeForecast";

/** A fact of the wiring as a question. */
const factQuestions: Readonly<Record<keyof WiringFacts, string>> = {
  switchedSide: "whether the speed control switches the feed or the ground",
  relay: "whether a relay feeds the blower",
  drive: "what controls the speed",
  highRelay: "whether the top speed has a relay of its own",
  lowRelays: "whether every speed has a relay of its own",
  packShape: "how the pack is built inside",
  highAtPack: "whether the top speed's wire passes through the pack's plug",
};

const driveWords: Readonly<Record<string, string>> = {
  resistor: "a resistor pack sets the speed",
  pwm: "a control module sets the speed by pulse width",
  linear: "a control module sets the speed linearly",
  bus: "the control is on a data bus",
};

function factText(fact: keyof WiringFacts, value: string | boolean): string {
  switch (fact) {
    case "switchedSide":
      return value === "ground"
        ? "the switch or control is on the ground side of the motor"
        : "the switch or control is on the feed side of the motor";
    case "drive":
      return driveWords[String(value)] ?? String(value);
    case "relay":
      return value ? "a relay feeds the blower" : "no relay feeds the blower";
    case "highRelay":
      return value ? "the top speed has a relay of its own" : "the top speed has no relay of its own";
    case "lowRelays":
      return value ? "every speed has a relay of its own" : "the low speed has no relay of its own";
    case "packShape":
      return value === "star"
        ? "each tap of the pack has an element of its own"
        : "the taps of the pack share their elements";
    case "highAtPack":
      return value
        ? "the top speed's wire passes through the pack's plug"
        : "the top speed's wire does not pass through the pack's plug";
  }
}

/** Why a verdict without a diagram stands as it does. */
export function wiringReasonText(reason: WiringReason): string {
  switch (reason.kind) {
    case "complaint-only":
      return "So far there is only the complaint. A complaint alone never confirms a verdict.";
    case "holds-under-all":
      return reason.wirings === 1
        ? "Only one way of wiring is still likely, and the repair is right under it."
        : `The repair is the same under all ${reason.wirings} ways of wiring that are still likely.`;
    case "wiring-open":
      return `Still open: ${factQuestions[reason.fact]}. It changes the repair.`;
    case "proof-missing":
      return "The proof is not complete yet.";
    case "proved":
      return "The readings prove it.";
    case "fact":
      return `The readings show that ${factText(reason.fact, reason.value)} (${percent(reason.p)}).`;
    case "may-be-bus":
      return `This vehicle may use a data bus (${percent(reason.p)}). Prove feeds, grounds and fuses; leave the control to the maker's procedure.`;
  }
}

const shareOf = (repairs: ReadonlyMap<Repair, number>) => {
  const whole = [...repairs.values()].reduce((sum, p) => sum + p, 0);
  const parts = new Map<string, number>();
  for (const [repair, p] of repairs)
    for (const part of repair === notListed ? [repairText(notListed)] : repair.parts)
      parts.set(part, (parts.get(part) ?? 0) + p / whole);
  return [...parts]
    .map(([part, p]) => ({ part, p }))
    .filter(({ p }) => p >= 0.01)
    .sort((a, b) => b.p - a.p)
    .slice(0, 4);
};

const forecastReport = ({ test, minutes, bits, outcomes }: PlaceForecast) => ({
  test,
  bits,
  minutes,
  outcomes: outcomes.slice(0, 8).map(({ seen, p, repairs }) => ({ seen, p, leaves: shareOf(repairs) })),
});

const notListedWhy = "Something outside every way of wiring that is considered.";

/** Under how many likely wirings a fault is likely. */
function fitsText(wirings: number): string {
  if (wirings === 0) return "It fits none of the ways of wiring that are still likely.";
  return wirings === 1
    ? "It fits one way of wiring that is still likely."
    : `It fits ${wirings} ways of wiring that are still likely.`;
}

/** A diagnosis without a diagram for the command line: the core's values in sentences. */
export function wiringReport({ id, diagnosis }: DiagnosedSeenCase) {
  const { suspects, parts, verdict, next, conflicts, circuits } = diagnosis;
  return {
    id,
    suspects: suspects.map(({ fault, repair, modes, p, wirings, group }) => ({
      fault,
      part: repairText(repair),
      mode: modes.length > 0 ? modes.join("+") : repairText(notListed),
      p,
      why: repair === notListed ? notListedWhy : fitsText(wirings),
      group,
    })),
    parts,
    verdict: {
      ...verdict,
      because: verdict.because.map(wiringReasonText),
    },
    next: next.map(forecastReport),
    conflicts: conflicts.map((reading) => ({
      reading,
      why: "The leading repair does not explain this reading.",
    })),
    circuits,
  };
}
