import { evenOdds, type LabelOdds, labellingShare, mostForeign, multiplied, type Odds } from "./labelOdds";
import { type Meanings, meaningOf, meaningsAt, nothing, withMeaning } from "./meaning";
import type { LabelledPin, Meaning, Piece } from "./piece";

export type PairPiece = Extract<Piece, { kind: "pair" }>;

/** What was read at the labels of one place, or of several that measurements join. */
export interface LabelGroup {
  /** Each label with what was read at it alone. */
  readonly places: ReadonlyMap<LabelledPin["place"], ReadonlyMap<string, readonly Piece[]>>;
  readonly pairs: readonly PairPiece[];
}

/** Ways to assign the labels met so far that make no difference to all that follows. */
interface Ways {
  /** Numbers of the pins or fuses of the place that have a label, as bits. */
  readonly used: number;
  /** What the labels stand for in one of these ways. */
  readonly meanings: Meanings;
  readonly odds: Odds;
}

/** Makes one of ways that go on alike: those met so far, if any, and one more, multiplied by factors. */
type Merge = (met: Ways | undefined, more: Ways, factors: Odds | number) => Ways;

/** One label to assign. */
interface Step {
  readonly pin: LabelledPin;
  /** The pins or fuses it may stand for, and the odds of what was read at it for each. */
  readonly roles: readonly Meaning[];
  readonly odds: readonly Odds[];
  /** The chance of the same if it is of another circuit. */
  readonly foreign: number;
  /** How many labels of the place may be of another circuit, and how many were assigned before this one. */
  readonly mostForeign: number;
  readonly before: number;
  /** Measurements of which it is the last label. */
  readonly joins: readonly PairPiece[];
  /** The labels that later measurements name. */
  readonly named: readonly LabelledPin[];
  /** Number of labels of the place, if this is the last of them. */
  readonly lastOf: number | null;
}

/** The most that are kept at a time: enough for eight pins, also while one of them is measured against the rest. */
const mostWays = 300;

const isUsed = (used: number, at: number): boolean => (used & (1 << at)) !== 0;

/** Number of pins or fuses that have a label. */
function countOf(used: number): number {
  let count = 0;
  for (let rest = used; rest > 0; rest &= rest - 1) count += 1;
  return count;
}

/** The labels of a group in the order in which they are assigned. */
function stepsOf(read: LabelOdds, { places, pairs }: LabelGroup): Step[] {
  const open = new Set(pairs);
  const met: LabelledPin[] = [];
  const isMet = (end: LabelledPin): boolean =>
    met.some(({ place, label }) => place === end.place && label === end.label);
  return [...places].flatMap(([place, labels]) => {
    const roles = meaningsAt(read.own.candidate, place);
    return [...labels].map(([label, pieces], at): Step => {
      const pin = { place, label };
      met.push(pin);
      const joins = [...open].filter(({ of }) => of.every(isMet));
      for (const pair of joins) open.delete(pair);
      return {
        pin,
        roles,
        odds: roles.map((role) => read.as(pieces, role)),
        foreign: read.asForeign(place, pieces),
        mostForeign: mostForeign(place, labels.size, roles.length),
        before: at,
        joins,
        named: [...open].flatMap(({ of }) => of),
        lastOf: at === labels.size - 1 ? labels.size : null,
      };
    });
  });
}

/**
 * The odds of what was read at a group of labels: the sum over the ways to assign them to pins, a permanent. Labels are
 * assigned one after another; ways that have used the same pins go on alike, so they are added up and nothing is lost.
 */
export class Labelling {
  private readonly steps: readonly Step[];

  constructor(
    private readonly read: LabelOdds,
    group: LabelGroup,
  ) {
    this.steps = stepsOf(read, group);
  }

  /** The sum over all ways by fault and sample; it has to be multiplied by the exponential of `log`. */
  summed(): { readonly odds: Odds; readonly log: number } {
    const { ways, log } = this.assigned((met, more, factors) => {
      if (!met) return { ...more, odds: multiplied(more.odds, factors) };
      for (let cell = 0; cell < met.odds.length; cell++)
        met.odds[cell] =
          (met.odds[cell] as number) +
          (more.odds[cell] as number) * (typeof factors === "number" ? factors : (factors[cell] as number));
      return met;
    });
    const odds = evenOdds(this.read.own.compiled).fill(0);
    for (const way of ways)
      for (let cell = 0; cell < odds.length; cell++)
        odds[cell] = (odds[cell] as number) + (way.odds[cell] as number);
    return { odds, log };
  }

  /** What the labels stand for in the likeliest way under a belief by fault and sample. */
  likeliest(belief: Odds): Meanings {
    const sumOf = ({ odds }: Ways, factors: Odds | number): number => {
      let sum = 0;
      for (let cell = 0; cell < belief.length; cell++)
        sum +=
          (belief[cell] as number) *
          (odds[cell] as number) *
          (typeof factors === "number" ? factors : (factors[cell] as number));
      return sum;
    };
    const { ways } = this.assigned((met, more, factors) =>
      met && sumOf(met, 1) >= sumOf(more, factors) ? met : { ...more, odds: multiplied(more.odds, factors) },
    );
    const [best] = [...ways].sort((a, b) => sumOf(b, 1) - sumOf(a, 1));
    return best?.meanings ?? new Map();
  }

  /** Assigns all labels. */
  private assigned(merge: Merge): { ways: readonly Ways[]; log: number } {
    let ways: readonly Ways[] = [{ used: 0, meanings: new Map(), odds: evenOdds(this.read.own.compiled) }];
    let log = 0;
    for (const step of this.steps) {
      // The odds of many labels together become too small for a number.
      const most = Math.max(...ways.map(({ odds }) => odds.reduce((one, other) => Math.max(one, other), 0)));
      const scale = most > 0 ? 1 / most : 1;
      log -= Math.log(scale);
      ways = this.next(step, ways, scale, merge);
    }
    return { ways, log };
  }

  /** Goes on with every pin that one more label may stand for. */
  private next(step: Step, ways: readonly Ways[], scale: number, merge: Merge): Ways[] {
    const { pin, roles, odds, foreign } = step;
    const alike = new Map<string, Ways>();
    const go = (way: Ways, meaning: Meaning, used: number, own: Odds | number): void => {
      const meanings = withMeaning(way.meanings, pin, meaning);
      const left = step.lastOf === null ? used : 0;
      const future = [left, ...step.named.map((end) => meaningOf(meanings, end).pin?.point ?? "")].join(" ");
      const factors = this.rest(step, meanings, used).reduce(product, product(own, scale));
      alike.set(future, merge(alike.get(future), { used: left, meanings, odds: way.odds }, factors));
    };
    for (const way of ways) {
      roles.forEach((role, at) => {
        if (!isUsed(way.used, at)) go(way, role, way.used | (1 << at), odds[at] ?? 1);
      });
      if (step.before - countOf(way.used) < step.mostForeign) go(way, nothing, way.used, foreign);
    }
    const all = [...alike.values()];
    if (all.length <= mostWays) return all;
    const most = (way: Ways): number => way.odds.reduce((one, other) => Math.max(one, other), 0);
    return all.sort((a, b) => most(b) - most(a)).slice(0, mostWays);
  }

  /** What is multiplied in with a label beside its own odds: measurements, and after the last one the share of the way. */
  private rest(
    { pin: { place }, roles, joins, lastOf }: Step,
    meanings: Meanings,
    used: number,
  ): (Odds | number)[] {
    const pairs = joins.map((pair) =>
      this.read.ofPair(
        pair,
        pair.of.map((end) => meaningOf(meanings, end)),
      ),
    );
    if (lastOf === null) return pairs;
    const missing = roles.flatMap(({ fuse }, at) => (fuse && !isUsed(used, at) ? [fuse] : []));
    return [
      ...pairs,
      labellingShare(place, lastOf, roles.length, countOf(used)),
      ...(missing.length > 0 ? [this.read.withoutFuses(new Set(missing))] : []),
    ];
  }
}

/** Two factors as one. */
function product(one: Odds | number, other: Odds | number): Odds | number {
  if (typeof one !== "number") return multiplied(one, other);
  return typeof other === "number" ? one * other : multiplied(other, one);
}
