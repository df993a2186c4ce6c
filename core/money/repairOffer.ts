import { type EstimateLine, type Priced, priced } from "./estimate";
import { scaled, shareOf } from "./rounding";
import { type ShopTerms, tenthsMilli } from "./shopTerms";

/** A part as an offer needs it. */
export interface OfferedPart {
  readonly id: string;
  readonly name: string;
  /** What it costs the shop. */
  readonly priceMinor: number;
}

/** What the offers are made from. */
export interface OfferInput {
  readonly terms: ShopTerms;
  /** What the verdict would replace, the cause first where it is part of it. */
  readonly parts: readonly OfferedPart[];
  /** Belief in that set. */
  readonly p: number;
  /** What killed it and is not in the set, with the chance that it would kill the new part within the warranty. */
  readonly cause: (OfferedPart & { readonly killsAgain: number }) | null;
  /** A part that shares the labour and may fail by itself. */
  readonly beside: (OfferedPart & { readonly failsWithin: number }) | null;
  /** The usual part for such a complaint, and how often it is that. */
  readonly guess: (OfferedPart & { readonly p: number }) | null;
  /** Minutes at the car to do some parts together, shared steps once, test included. */
  readonly labourMinutes: (ids: readonly string[]) => number;
  /** The book's tenths for some parts, where the shop goes by the book. */
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

/** One way to do the job, priced, with what may come after it. */
export interface RepairOffer {
  readonly kind: OfferKind;
  readonly parts: readonly string[];
  readonly priced: Priced;
  /** Chance that it does not hold within the warranty. */
  readonly comebackChance: number;
  /** What that is expected to cost. */
  readonly comebackMinor: number;
  /** The total and what is expected to come after it. */
  readonly expectedMinor: number;
}

/** The lines of some parts fitted here: diagnosis by the shop's minimum and policy, labour once, parts with markup. */
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

/** Diagnosis at the shop's minimum or what it took, in tenths. */
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
 * The ways to do the job, side by side: the part alone; the part and what killed it; both that share the labour; the
 * owner's own work; and swapping the usual part on a guess, with what follows where the guess is wrong.
 */
export function repairOffers(input: OfferInput): RepairOffer[] {
  const { terms, parts, p, cause, beside, guess } = input;
  const wrong = 1 - p;
  const causeAgain = cause ? p * cause.killsAgain : 0;
  const offers: RepairOffer[] = [offer(input, "part-only", parts, wrong + causeAgain)];
  if (cause) offers.push(offer(input, "part-and-cause", [cause, ...parts], wrong));
  if (beside && beside.id !== cause?.id) {
    // The part beside it no longer fails; what else may go wrong stays.
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

/** The usual part without a test; where it was not that, the comeback, the diagnosis and the right part after all. */
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
