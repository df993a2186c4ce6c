import { type Priced, priced } from "./estimate";
import type { EstimateLine } from "./estimateLine";
import { scaled, shareOf } from "./rounding";
import { type ShopTerms, tenthsMilli } from "./shopTerms";

/** A part in an offer. */
export interface OfferedPart {
  readonly id: string;
  readonly name: string;
  /** What the part costs the shop. */
  readonly priceMinor: number;
}

/** The input of the offers. */
export interface OfferInput {
  readonly terms: ShopTerms;
  /** The parts the verdict would replace; the root cause first if it is among them. */
  readonly parts: readonly OfferedPart[];
  /** Belief in that set. */
  readonly p: number;
  /** The root cause if it is not in the set, with the chance that it damages the new part within the warranty. */
  readonly cause: (OfferedPart & { readonly killsAgain: number }) | null;
  /** A part that shares the labour and may fail by itself. */
  readonly beside: (OfferedPart & { readonly failsWithin: number }) | null;
  /** The part that usually causes such a complaint, and how often it does. */
  readonly guess: (OfferedPart & { readonly p: number }) | null;
  /** Minutes at the car to replace some parts together, with shared steps once, including the test. */
  readonly labourMinutes: (ids: readonly string[]) => number;
  /** The book time in tenths of an hour for some parts, if the shop uses book time. */
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
  readonly parts: readonly string[];
  readonly priced: Priced;
  /** Probability that the repair does not last the warranty. */
  readonly comebackChance: number;
  /** The expected cost of that. */
  readonly comebackMinor: number;
  /** The total plus its expected comeback cost. */
  readonly expectedMinor: number;
}

/** The lines for parts fitted here: diagnosis by the shop's minimum and policy, labour once, parts with markup. */
export function repairLines(
  input: OfferInput,
  parts: readonly OfferedPart[],
  { diagnosis = true }: { readonly diagnosis?: boolean } = {},
): EstimateLine[] {
  const { terms } = input;
  const ids = parts.map(({ id }) => id);
  const minutes = terms.labourBy === "book" ? input.bookMinutes(ids) : input.labourMinutes(ids);
  const labour: EstimateLine = {
    kind: "labour",
    title: `Replace ${parts.map(({ name }) => name).join(" and ")}`,
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
    ...parts.map((part) => partLine(part, terms)),
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

function partLine({ name, priceMinor }: OfferedPart, terms: ShopTerms): EstimateLine {
  return {
    kind: "part",
    title: name,
    quantityMilli: 1000,
    unit: "pc",
    eachMinor: priceMinor + shareOf(priceMinor, terms.markupBasisPoints, terms.rounding.rule),
    taxBasisPoints: terms.partTaxBasisPoints,
  };
}

/**
 * The ways to do the repair, side by side: the part alone; the part and its root cause; both parts that share the
 * labour; work by the owner; and replacing the usual part on a guess, with the cost if the guess is wrong.
 */
export function repairOffers(input: OfferInput): RepairOffer[] {
  const { terms, parts, p, cause, beside, guess } = input;
  const wrong = 1 - p;
  const causeAgain = cause ? p * cause.killsAgain : 0;
  const offers: RepairOffer[] = [offer(input, "part-only", parts, wrong + causeAgain)];
  if (cause) offers.push(offer(input, "part-and-cause", [cause, ...parts], wrong));
  if (beside && beside.id !== cause?.id) {
    // The second part no longer fails; every other risk stays.
    offers.push(offer(input, "both-at-once", [...parts, beside], wrong + causeAgain));
  }
  const own = priced([diagnosisLine(input), ...parts.map((part) => partLine(part, terms))], terms.rounding);
  offers.push(withComeback(input, "owners-own", parts, own, 0));
  if (guess) offers.push(guessFirst(input, guess));
  return offers;
}

const offer = (
  input: OfferInput,
  kind: OfferKind,
  parts: readonly OfferedPart[],
  comebackChance: number,
): RepairOffer =>
  withComeback(input, kind, parts, priced(repairLines(input, parts), input.terms.rounding), comebackChance);

function withComeback(
  { terms }: OfferInput,
  kind: OfferKind,
  parts: readonly OfferedPart[],
  own: Priced,
  comebackChance: number,
): RepairOffer {
  const comebackMinor = Math.round(comebackChance * terms.comebackMinor);
  return {
    kind,
    parts: parts.map(({ id }) => id),
    priced: own,
    comebackChance,
    comebackMinor,
    expectedMinor: own.totalMinor + comebackMinor,
  };
}

/** The usual part without a test. If it was not that part, add the comeback, the diagnosis and the right part. */
function guessFirst(input: OfferInput, guess: OfferedPart & { readonly p: number }): RepairOffer {
  const first = priced(repairLines(input, [guess], { diagnosis: false }), input.terms.rounding);
  const after = priced(repairLines(input, input.parts), input.terms.rounding);
  const wrong = 1 - guess.p;
  const comebackMinor = Math.round(wrong * (input.terms.comebackMinor + after.totalMinor));
  return {
    kind: "guess-first",
    parts: [guess.id],
    priced: first,
    comebackChance: wrong,
    comebackMinor,
    expectedMinor: first.totalMinor + comebackMinor,
  };
}
