/** The usual places of a blower motor, and one for all others. */
export const motorPlaces = [
  {
    id: "passenger-footwell",
    often: 0.62,
  },
  {
    id: "under-bonnet",
    often: 0.18,
  },
  {
    id: "behind-centre",
    often: 0.15,
  },
  {
    id: "elsewhere",
    often: 0.05,
  },
] as const;
export type MotorPlace = (typeof motorPlaces)[number]["id"];

/**
 * Probability of noticing each sign with the motor in each place, in the order of the places (judgement, no source).
 */
export const placeSigns = [
  {
    id: "shake-passenger",
    likely: [0.8, 0.2, 0.15, 0.03],
  },
  {
    id: "shake-centre",
    likely: [0.1, 0.1, 0.75, 0.03],
  },
  {
    id: "loud-bonnet",
    likely: [0.05, 0.8, 0.1, 0.05],
  },
  {
    id: "air-in-footwell",
    likely: [0.7, 0.15, 0.2, 0.05],
  },
  {
    id: "lead-from-pack",
    likely: [0.75, 0.1, 0.2, 0.05],
  },
  {
    id: "lead-through-bulkhead",
    likely: [0.04, 0.7, 0.08, 0.1],
  },
  { id: "second-unit", likely: [0.3, 0.3, 0.3, 0.6] },
] as const;
export type PlaceSign = (typeof placeSigns)[number]["id"];

/** Where a motor may be and how likely, the likeliest first. */
export interface PlaceOdds {
  readonly id: MotorPlace;
  readonly p: number;
}

/** Weighs the places by the signs noticed: Bayes' rule with independent signs. */
export function whereIsIt(noticed: readonly PlaceSign[]): PlaceOdds[] {
  const weights = motorPlaces.map(({ often }, place) =>
    placeSigns.reduce<number>(
      (weight, { id, likely }) => (noticed.includes(id) ? weight * (likely[place] as number) : weight),
      often,
    ),
  );
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return motorPlaces
    .map(({ id }, place) => ({ id, p: (weights[place] as number) / total }))
    .sort((a, b) => b.p - a.p);
}
