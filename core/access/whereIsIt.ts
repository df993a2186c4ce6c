/** The usual places of a blower motor, and one for the rest. */
export const motorPlaces = [
  {
    id: "passenger-footwell",
    title: "Under the dash on the passenger's side, behind or below the glove box",
    reach: "glove box or lower panel; it drops down, wheel and all, or turns out of a twist lock",
    often: 0.62,
  },
  {
    id: "under-bonnet",
    title: "Under the bonnet at the bulkhead, behind battery, tray or cowl",
    reach: "battery and tray, or wipers and cowl; it comes out forwards",
    often: 0.18,
  },
  {
    id: "behind-centre",
    title: "Behind the centre of the dash or on the driver's side",
    reach: "carpet and side panel; sometimes the accelerator; some books say dash out",
    often: 0.15,
  },
  {
    id: "elsewhere",
    title: "Somewhere else: under a seat, in the rear quarter, on the roof",
    reach: "follow the wires",
    often: 0.05,
  },
] as const;
export type MotorPlace = (typeof motorPlaces)[number]["id"];

/** How likely each sign is to be noticed with the motor in each place, in the order of the places (judgement, no source). */
export const placeSigns = [
  {
    id: "shake-passenger",
    title: "The passenger's side of the dash shakes at top speed",
    likely: [0.8, 0.2, 0.15, 0.03],
  },
  {
    id: "shake-centre",
    title: "The middle of the dash or the driver's side shakes",
    likely: [0.1, 0.1, 0.75, 0.03],
  },
  {
    id: "loud-bonnet",
    title: "It is louder with the bonnet up than with the door open",
    likely: [0.05, 0.8, 0.1, 0.05],
  },
  {
    id: "air-in-footwell",
    title: "Air is drawn in near the glove box when the air is recirculated",
    likely: [0.7, 0.15, 0.2, 0.05],
  },
  {
    id: "lead-from-pack",
    title: "The thick lead from the pack goes up behind the glove box",
    likely: [0.75, 0.1, 0.2, 0.05],
  },
  {
    id: "lead-through-bulkhead",
    title: "The thick lead from the pack goes through the bulkhead",
    likely: [0.04, 0.7, 0.08, 0.1],
  },
  { id: "second-unit", title: "There is a second heater, for the rear", likely: [0.3, 0.3, 0.3, 0.6] },
] as const;
export type PlaceSign = (typeof placeSigns)[number]["id"];

/** Where a motor may be and how likely, likeliest first. */
export interface PlaceOdds {
  readonly id: MotorPlace;
  readonly title: string;
  readonly reach: string;
  readonly p: number;
}

/** Weighs the places by what was noticed: Bayes' rule over signs taken as independent. */
export function whereIsIt(noticed: readonly PlaceSign[]): PlaceOdds[] {
  const weights = motorPlaces.map(({ often }, place) =>
    placeSigns.reduce<number>(
      (weight, { id, likely }) => (noticed.includes(id) ? weight * (likely[place] as number) : weight),
      often,
    ),
  );
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return motorPlaces
    .map(({ id, title, reach }, place) => ({ id, title, reach, p: (weights[place] as number) / total }))
    .sort((a, b) => b.p - a.p);
}

/** How to find it on a car nobody here has seen, in the order that costs least. */
export const findingIt = [
  "Top speed, hands flat on the dash: feel where it shakes most.",
  "Recirculated air: feel where it is drawn in; the motor is behind that.",
  "From the pack or the control, whose place is often known: follow the two thickest leads.",
  "Bonnet up and bonnet down, door open and shut: listen on which side it is louder.",
] as const;
