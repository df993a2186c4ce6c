import type { WorkDone } from "../labour/workDone";
import { type Priced, priced } from "./estimate";
import type { EstimateLine } from "./estimateLine";
import { scaled, shareOf } from "./rounding";
import { type ShopTerms, tenthsMilli } from "./shopTerms";

/** A line of work in an offer. */
export interface OfferedWork {
  /** The part of the circuit, or the line's own id for anything else. */
  readonly id: string;
  readonly name: string;
  readonly done: WorkDone;
  /** What its new part costs the shop; null if nothing new is fitted. */
  readonly priceMinor: number | null;
  /** Probability that it does not last the warranty although it cured the fault: by itself, or as a temporary repair. */
  readonly failsAgain: number;
}

/** The input of the offers. */
export interface OfferInput {
  readonly terms: ShopTerms;
  /** The lines of work; the root cause first if it is among them. */
  readonly works: readonly OfferedWork[];
  /** Belief that exactly some lines cure the fault. */
  readonly cures: (works: readonly OfferedWork[]) => number;
  /** The root cause if it is not among them, with the chance that it damages the new part within the warranty. */
  readonly cause: (OfferedWork & { readonly killsAgain: number }) | null;
  /** A part that shares the labour and may fail by itself. */
  readonly beside: OfferedWork | null;
  /** The part that usually causes such a complaint, and how often it does. */
  readonly guess: (OfferedWork & { readonly p: number }) | null;
  /** What a line of labour is called: `Renew blower motor M1, clean ground G2`. */
  readonly labourTitle: (works: readonly OfferedWork[]) => string;
  /** Minutes at the car for some lines together, with shared steps once, including the test. */
  readonly labourMinutes: (ids: readonly string[]) => number;
  /** The same by book time. */
  readonly bookMinutes: (ids: readonly string[]) => number;
  readonly diagnosisMinutes: number;
}

export const offerKinds = [
  "part-only",
  "part-and-cause",
  "both-at-once",
  "owners-own",
  "guess-first",
] as const;
export type OfferKind = (typeof offerKinds)[number];

/** One way to do the repair, priced, with its comeback risk. */
export interface RepairOffer {
  readonly kind: OfferKind;
  readonly works: readonly string[];
  readonly priced: Priced;
  /** Probability that the repair does not last the warranty. */
  readonly comebackChance: number;
  /** The expected cost of that. */
  readonly comebackMinor: number;
  /** The total plus its expected comeback cost. */
  readonly expectedMinor: number;
}

/** The lines for work done here: diagnosis by the shop's minimum and policy, labour once, parts with markup. */
export function repairLines(
  input: OfferInput,
  works: readonly OfferedWork[],
  { diagnosis = true }: { readonly diagnosis?: boolean } = {},
): EstimateLine[] {
  const { terms } = input;
  const ids = works.map(({ id }) => id);
  const minutes = terms.labourBy === "book" ? input.bookMinutes(ids) : input.labourMinutes(ids);
  const labour: EstimateLine = {
    kind: "labour",
    title: input.labourTitle(works),
    quantityMilli: tenthsMilli(minutes),
    unit: "h",
    eachMinor: terms.hourMinor,
    taxBasisPoints: terms.labourTaxBasisPoints,
  };
  const charged = scaled(labour.eachMinor, labour.quantityMilli, 1000, terms.rounding.rule);
  const consumables = shareOf(charged, terms.consumablesBasisPoints, terms.rounding.rule);
  return [
    ...(diagnosis && terms.diagnosisPolicy === "on-top" ? [diagnosisLine(input)] : []),
    labour,
    ...works.flatMap((work) => partLines(work, terms)),
    ...(consumables > 0
      ? [
          {
            kind: "consumable" as const,
            title: "Ties, grease, cleaner",
            quantityMilli: 1000,
            unit: "pc" as const,
            eachMinor: consumables,
            taxBasisPoints: terms.partTaxBasisPoints,
          },
        ]
      : []),
  ];
}

/** Diagnosis time in tenths of an hour: the shop's minimum, or the time taken if longer. */
export function diagnosisLine({
  terms,
  diagnosisMinutes,
}: Pick<OfferInput, "terms" | "diagnosisMinutes">): EstimateLine {
  return {
    kind: "diagnosis",
    title: "Diagnosis",
    quantityMilli: tenthsMilli(Math.max(terms.diagnosisMinimumMinutes, diagnosisMinutes)),
    unit: "h",
    eachMinor: terms.hourMinor,
    taxBasisPoints: terms.labourTaxBasisPoints,
  };
}

/** The new part of a line of work; none if nothing new is fitted. */
function partLines({ name, priceMinor }: OfferedWork, terms: ShopTerms): EstimateLine[] {
  if (priceMinor === null) return [];
  return [
    {
      kind: "part",
      title: name,
      quantityMilli: 1000,
      unit: "pc",
      eachMinor: priceMinor + shareOf(priceMinor, terms.markupBasisPoints, terms.rounding.rule),
      taxBasisPoints: terms.partTaxBasisPoints,
    },
  ];
}

/**
 * The ways to do the repair, side by side: the lines of work alone; with the root cause; with the part that shares the
 * labour; the parts handed to the owner; and replacing the usual part on a guess, with the cost if the guess is wrong.
 */
export function repairOffers(input: OfferInput): RepairOffer[] {
  const { terms, works, cause, beside, guess } = input;
  // Each of these ends the repair: it is not the fault, the root cause comes again, or some of the work does not last.
  const lasts = (list: readonly OfferedWork[], again: number): number =>
    list.reduce((left, { failsAgain }) => left * (1 - failsAgain), input.cures(list) * (1 - again));
  const again = cause?.killsAgain ?? 0;
  const offers: RepairOffer[] = [offer(input, "part-only", works, 1 - lasts(works, again))];
  if (cause) offers.push(offer(input, "part-and-cause", [cause, ...works], 1 - lasts([cause, ...works], 0)));
  if (beside && beside.id !== cause?.id) {
    offers.push(offer(input, "both-at-once", [...works, beside], 1 - lasts([...works, beside], again)));
  }
  const handed = works.filter(({ priceMinor }) => priceMinor !== null);
  if (handed.length > 0) {
    const own = priced(
      [diagnosisLine(input), ...handed.flatMap((work) => partLines(work, terms))],
      terms.rounding,
    );
    offers.push(withComeback(input, "owners-own", handed, own, 0));
  }
  if (guess) offers.push(guessFirst(input, guess));
  return offers;
}

const offer = (
  input: OfferInput,
  kind: OfferKind,
  works: readonly OfferedWork[],
  comebackChance: number,
): RepairOffer =>
  withComeback(input, kind, works, priced(repairLines(input, works), input.terms.rounding), comebackChance);

function withComeback(
  { terms }: OfferInput,
  kind: OfferKind,
  works: readonly OfferedWork[],
  own: Priced,
  comebackChance: number,
): RepairOffer {
  const comebackMinor = Math.round(comebackChance * terms.comebackMinor);
  return {
    kind,
    works: works.map(({ id }) => id),
    priced: own,
    comebackChance,
    comebackMinor,
    expectedMinor: own.totalMinor + comebackMinor,
  };
}

/**
 * The usual part without a test. If it was not that part, add the comeback, the diagnosis and the right part. If it
 * was, it may still not last, and the root cause may ruin it again, as after a test.
 */
function guessFirst(input: OfferInput, guess: OfferedWork & { readonly p: number }): RepairOffer {
  const first = priced(repairLines(input, [guess], { diagnosis: false }), input.terms.rounding);
  const after = priced(repairLines(input, input.works), input.terms.rounding);
  const wrong = 1 - guess.p;
  const killsAgain = input.cause && input.cause.id !== guess.id ? input.cause.killsAgain : 0;
  const fails = guess.p * (1 - (1 - killsAgain) * (1 - guess.failsAgain));
  const comebackMinor = Math.round(
    wrong * (input.terms.comebackMinor + after.totalMinor) + fails * input.terms.comebackMinor,
  );
  return {
    kind: "guess-first",
    works: [guess.id],
    priced: first,
    comebackChance: wrong + fails,
    comebackMinor,
    expectedMinor: first.totalMinor + comebackMinor,
  };
}

/** What to recommend to the customer, and why. */
export type Recommendation =
  | { readonly advice: "test-first"; readonly p: number }
  | {
      readonly advice: "offer";
      readonly kind: OfferKind;
      readonly reason: "only-one" | "cheapest" | "cheapest-with-comebacks";
      /** What the next best offer costs more, with its comebacks; 0 if there is none. */
      readonly savesMinor: number;
    };

/**
 * The one offer to recommend: the cheapest once comebacks are counted, among those done here on a confirmed verdict.
 * While the verdict is open, nothing is recommended but another test; a guess never is.
 * @param isConfirmed whether the verdict names this repair as its end
 */
export function recommended(
  offers: readonly RepairOffer[],
  { cures, works }: Pick<OfferInput, "cures" | "works">,
  isConfirmed: boolean,
): Recommendation | null {
  const own = offers.filter(({ kind }) => kind !== "owners-own" && kind !== "guess-first");
  const [best, next] = [...own].sort((a, b) => a.expectedMinor - b.expectedMinor);
  if (!best) return null;
  if (!isConfirmed) return { advice: "test-first", p: cures(works) };
  if (!next) return { advice: "offer", kind: best.kind, reason: "only-one", savesMinor: 0 };
  const isCheapest = own.every(({ priced: { totalMinor } }) => totalMinor >= best.priced.totalMinor);
  return {
    advice: "offer",
    kind: best.kind,
    reason: isCheapest ? "cheapest" : "cheapest-with-comebacks",
    savesMinor: next.expectedMinor - best.expectedMinor,
  };
}
