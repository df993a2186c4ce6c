import type { Circuit } from "@core/circuit/circuit";
import { notListed, type Repair } from "@core/fault/repair";
import { listed, percent } from "@core/units/wording";
import type { WiringDiagnosis, WiringVerdict } from "@core/wiring/diagnoseWiring";
import { learnedCircuit } from "@core/wiring/learnedCircuit";
import type { PlaceForecast, PlaceOutcome } from "@core/wiring/placeForecast";
import type { PlaceReading } from "@core/wiring/placeReading";
import type { GroupedSuspect } from "@core/wiring/placeSuspect";
import { type PlaceTest, placeTestKey } from "@core/wiring/placeTest";
import type { SeenCar } from "@core/wiring/seenCar";
import { wiringDoubt } from "@core/wiring/wiringDoubt";
import { placeFaultText, placeName, placeOutcomeText, placeRepairText } from "@words/placeWords";
import { wiringReasonText } from "@words/wiringWords";

/** A fault under suspicion. */
export interface SeenFault {
  readonly fault: string;
  readonly words: string;
  readonly p: number;
}

/** What may need work, with its faults. */
export interface SeenSuspect {
  readonly name: string;
  readonly p: number;
  readonly faults: readonly SeenFault[];
}

/** A test that the page offers. */
export interface SeenNext {
  readonly key: string;
  readonly test: PlaceTest;
  readonly minutes: number;
  /** Number of pins or fuses to expect. */
  readonly pins: number;
  readonly outcomes: readonly { readonly seen: string; readonly p: number; readonly leaves: string }[];
}

/** The diagnosis of a job without a diagram as its page shows it: plain data, so that a thread can send it. */
export interface SeenDiagnosis {
  readonly state: WiringVerdict["state"];
  /** What to repair: `resistor pack`. */
  readonly repair: string;
  readonly p: number;
  readonly killedBy: string | null;
  readonly alsoCheck: string | null;
  readonly because: readonly string[];
  readonly suspects: readonly SeenSuspect[];
  readonly next: readonly SeenNext[];
  readonly wirings: readonly { readonly id: string; readonly title: string; readonly p: number }[];
  /** The likeliest wiring, and how doubtful each part and wire of it is; null if there is none to draw. */
  readonly drawing: { readonly circuit: Circuit; readonly doubt: Readonly<Record<string, number>> } | null;
  /** Numbers of readings that the leading repair does not explain, counted from 0 among the active ones. */
  readonly conflicts: readonly number[];
}

/** The page shows repairs from this belief on, and so many of them; of a test, so many outcomes. */
const leastShown = 0.005;
const mostShown = 8;
const mostOutcomes = 4;

function suspectLines(suspects: readonly GroupedSuspect[]): SeenSuspect[] {
  const byRepair = new Map<Repair, GroupedSuspect[]>();
  for (const own of suspects) byRepair.set(own.repair, [...(byRepair.get(own.repair) ?? []), own]);
  return [...byRepair]
    .map(([repair, own]) => ({
      name: placeRepairText(repair),
      p: own.reduce((sum, { p }) => sum + p, 0),
      faults: own
        .filter(({ p }) => p >= leastShown)
        .map(({ fault, modes, p }) => ({ fault, words: placeFaultText(repair, modes), p })),
    }))
    .filter(({ p }) => p >= leastShown)
    .sort((a, b) => b.p - a.p)
    .slice(0, mostShown);
}

/** The likeliest repair that an outcome leaves, and how sure it is then. */
function leavesText({ repairs }: PlaceOutcome): string {
  const whole = [...repairs.values()].reduce((sum, p) => sum + p, 0);
  const [best] = [...repairs].filter(([repair]) => repair !== notListed).sort((a, b) => b[1] - a[1]);
  return best ? `${placeRepairText(best[0])} ${percent(best[1] / whole)}` : "something else";
}

const nextTest = ({ test, minutes, pins, outcomes }: PlaceForecast): SeenNext => ({
  key: placeTestKey(test),
  test,
  minutes,
  pins,
  outcomes: outcomes
    .slice(0, mostOutcomes)
    .map((own) => ({ seen: placeOutcomeText(test, own.seen), p: own.p, leaves: leavesText(own) })),
});

/** The diagnosis as the page shows it. */
export function seenDiagnosis(
  { suspects, verdict, next, conflicts, circuits, belief }: WiringDiagnosis,
  seen: SeenCar,
  readings: readonly PlaceReading[],
): SeenDiagnosis {
  const { state, replace, p, killedBy, alsoCheck, because } = verdict;
  const likeliest = learnedCircuit(belief, seen, readings, {
    id: "likeliest",
    title: "the likeliest wiring",
  });
  return {
    state,
    repair: replace.length > 0 ? listed(replace.map(placeName)) : "something else",
    p,
    killedBy: killedBy && placeName(killedBy),
    alsoCheck: alsoCheck.length > 0 ? listed(alsoCheck.map(placeName)) : null,
    because: because.map(wiringReasonText),
    suspects: suspectLines(suspects),
    next: next.map(nextTest),
    wirings: circuits.map(({ id, title, p: own }) => ({ id, title, p: own })),
    drawing: likeliest.ok ? { circuit: likeliest.value.circuit, doubt: wiringDoubt(belief) } : null,
    conflicts,
  };
}
