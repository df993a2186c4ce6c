import { entropyAfter, entropyBits } from "../diagnose/belief/entropy";
import { notListed, type Repair } from "../fault/repair";
import { observationOf } from "../predict/observations/index";
import { type Test, testOf } from "../predict/reading";
import type { CompiledCircuit } from "../predict/tables/compiledCircuit";
import { isMessage, meaningOf } from "./meaning";
import type { LabelledPin, Meaning } from "./piece";
import { piecesOf } from "./piece";
import { concreteReadings, freshLabels, type PlaceTest, placeTestMinutes, withAnyResult } from "./placeTest";
import type { BelievedCandidate, WiringBelief } from "./wiringBelief";

/** What a test by place may show, and who is left. */
export interface PlaceOutcome {
  readonly seen: string;
  readonly p: number;
  readonly repairs: ReadonlyMap<Repair, number>;
}

/** A test by place, with what it is expected to tell. */
export interface PlaceForecast {
  readonly test: PlaceTest;
  readonly minutes: number;
  /** Number of pins or fuses it reads on the likeliest wiring, or that were met on the vehicle. */
  readonly pins: number;
  /** Expected information about the repair, in bits. */
  readonly bits: number;
  /** The same about the wiring. */
  readonly wiringBits: number;
  readonly outcomes: readonly PlaceOutcome[];
}

/** Belief in the wirings whose forecasts are computed, and in a fault that is forecast. */
const believedShare = 0.97;
const mostCandidates = 12;
const leastVariant = 0.0005;
/** Share of readings that show something else than the likeliest (judgement, no source). */
const otherwise = 0.06;

/** Fuses of a blower's circuit that are tested where nobody has counted them (common practice, no source). */
const usualFuses = 3;

/** Volts, ohms and amps that a person tells apart on a display without a diagram (judgement). */
const steps: Readonly<Record<string, readonly number[]>> = {
  volts: [0.5, 2, 5, 8, 10.5],
  ohms: [0.3, 0.8, 1.6, 3, 8, 1000],
  amps: [0.5, 3, 8, 14, 24, 40],
};

function band(test: Test["test"], value: number): string {
  const own = steps[test] ?? [];
  const size = Math.abs(value);
  const at = own.findIndex((edge) => size < edge);
  if (at < 0) return test === "ohms" ? "OL" : `${own.at(-1) ?? 0} up`;
  return at === 0 ? `below ${own[0]}` : `${own[at - 1]} to ${own[at]}`;
}

/** What one suspect's likeliest reading of a test is, in the nominal vehicle. */
function shownBy(compiled: CompiledCircuit, test: Test): (variant: number) => string {
  const model = observationOf(test.test);
  if (model.gives === "number") {
    const value = model.value(compiled, test);
    return (variant) => band(test.test, value(compiled.rowsOf(variant)[0]?.row ?? 0, 0));
  }
  const odds = model.odds(compiled, test, false);
  const own = new Float64Array(model.outcomes.length);
  return (variant) => {
    odds(variant, 0, own);
    let best = 0;
    for (let at = 1; at < own.length; at++) if ((own[at] as number) > (own[best] as number)) best = at;
    return model.outcomes[best] ?? "";
  };
}

/**
 * What a wire of a data bus shows. It counts as a reading of its own, because a command that follows the speed tells a
 * data bus apart; a single reading may be the same by chance.
 */
const messages = "messages";

/** What a candidate's suspects show of a test by place; null if it does not have the place. */
function shownOn(
  own: BelievedCandidate,
  test: PlaceTest,
  met: readonly string[],
): ((variant: number) => string) | null {
  const { candidate, compiled } = own;
  const meanings = own.meanings();
  const place = "at" in test ? test.at : undefined;
  const pins = place === "fuses" ? candidate.fuses.length : pinsAt(own, place);
  const labels = met.length > 0 ? met : freshLabels(pins);
  // What their colours are says nothing of what is wrong.
  if (test.test === "wires") return candidate.plugs.has(test.at) ? () => `${labels.length} wires` : null;
  const reading = withAnyResult(test, labels);
  const pieces = piecesOf(candidate, compiled.netlist, reading);
  if (pieces.some(({ kind }) => kind === "there")) return null;
  const fresh = (of: LabelledPin): Meaning => {
    const at = labels.indexOf(of.label);
    const pin = of.place === "fuses" ? null : (candidate.plugs.get(of.place)?.pins[at] ?? null);
    return { pin, fuse: of.place === "fuses" ? (candidate.fuses[at] ?? null) : null };
  };
  const meaning = (of: LabelledPin): Meaning => (met.length > 0 ? meaningOf(meanings, of) : fresh(of));
  const shown = pieces.map((piece) =>
    piece.kind === "pin" && isMessage(candidate, meaning(piece.of))
      ? [() => messages]
      : concreteReadings(piece, meaning).map((one) => shownBy(compiled, testOf(one))),
  );
  return (variant) => {
    const words = shown.map((own) => own.map((of) => of(variant)).join("/"));
    // Pins that nobody has named yet can come in any order.
    return (met.length > 0 ? words : [...words].sort()).join(", ");
  };
}

const pinsAt = ({ candidate }: BelievedCandidate, place: string | undefined): number =>
  [...candidate.plugs].find(([own]) => own === place)?.[1].pins.length ?? 0;

/** The place whose labels a test reads. */
const placeOfLabels = (test: PlaceTest): string =>
  "at" in test && test.at ? test.at : "around" in test || "red" in test ? "motor-plug" : "";

const add = <K>(to: Map<K, number>, key: K, p: number): void => {
  to.set(key, (to.get(key) ?? 0) + p);
};

/** A fault of a wiring that is worth forecasting. */
interface Cell {
  readonly own: BelievedCandidate;
  readonly variant: number;
  readonly repair: Repair;
  readonly p: number;
}

/** Forecasts of tests by place under a belief. */
export class PlaceForecasts {
  private readonly likely: readonly BelievedCandidate[];
  private readonly cells: readonly Cell[];
  private readonly whole: number;

  /** @param labels the labels met so far at each place */
  constructor(
    { candidates }: WiringBelief,
    private readonly labels: ReadonlyMap<string, readonly string[]>,
  ) {
    let sum = 0;
    this.likely = candidates.slice(0, mostCandidates).filter(({ p }) => {
      const isNeeded = sum < believedShare;
      sum += p;
      return isNeeded;
    });
    this.cells = this.likely.flatMap((own) =>
      [...own.variants].flatMap((share, variant) =>
        share * own.p >= leastVariant
          ? [{ own, variant, repair: own.repairs[variant] ?? notListed, p: own.p * share }]
          : [],
      ),
    );
    this.whole = this.cells.reduce((all, { p }) => all + p, 0);
  }

  /** The wirings that are forecast. */
  candidates(): readonly BelievedCandidate[] {
    return this.likely;
  }

  /**
   * The groups of some suspects, by number from 1: those that none of the tests tells apart under the likeliest wiring
   * share one.
   * @param variants of the likeliest wiring
   */
  groups(variants: readonly number[], tests: readonly PlaceTest[]): number[] {
    const [own] = this.likely;
    const shown = own ? tests.flatMap((test) => shownOn(own, test, this.labelsFor(test)) ?? []) : [];
    const met = new Map<string, number>();
    return variants.map((variant) => {
      const key = JSON.stringify(shown.map((of) => of(variant)));
      const group = met.get(key) ?? met.size + 1;
      met.set(key, group);
      return group;
    });
  }

  private labelsFor(test: PlaceTest): readonly string[] {
    return this.labels.get(placeOfLabels(test)) ?? [];
  }

  of(test: PlaceTest): PlaceForecast {
    const place = placeOfLabels(test);
    const met = this.labelsFor(test);
    const shown = new Map(this.likely.map((own) => [own, shownOn(own, test, met)]));
    const outcomes = new Map<
      string,
      { repairs: Map<Repair, number>; wirings: Map<BelievedCandidate, number> }
    >();
    const [repairs, wirings] = [new Map<Repair, number>(), new Map<BelievedCandidate, number>()];
    for (const { own, variant, repair, p } of this.cells) {
      const share = p / this.whole;
      const seen = shown.get(own)?.(variant) ?? "absent";
      const left = outcomes.get(seen) ?? {
        repairs: new Map<Repair, number>(),
        wirings: new Map<BelievedCandidate, number>(),
      };
      outcomes.set(seen, left);
      add(left.repairs, repair, share);
      add(left.wirings, own, share);
      add(repairs, repair, share);
      add(wirings, own, share);
    }
    const told = <K>(
      before: ReadonlyMap<K, number>,
      after: (left: {
        repairs: Map<Repair, number>;
        wirings: Map<BelievedCandidate, number>;
      }) => Map<K, number>,
    ): number =>
      (1 - otherwise) *
      (entropyBits([...before.values()]) -
        entropyAfter([...outcomes.values()].map((left) => [...after(left).values()])));
    const pins = this.likely[0] ? Math.max(met.length, pinsAt(this.likely[0], place)) : 0;
    const readPins = place === "fuses" ? Math.max(met.length, usualFuses) : pins;
    return {
      test,
      minutes: placeTestMinutes(test, readPins),
      pins: readPins,
      bits: told(repairs, (left) => left.repairs),
      wiringBits: told(wirings, (left) => left.wirings),
      outcomes: [...outcomes]
        .map(([seen, left]) => ({
          seen,
          p: [...left.repairs.values()].reduce((sum, own) => sum + own, 0),
          repairs: left.repairs,
        }))
        .sort((a, b) => b.p - a.p),
    };
  }
}
