/** What the records can be ordered by. */
export const recordOrders = ["closed", "came", "vehicle", "circuit", "fault", "minutes", "money"] as const;
export type RecordOrder = (typeof recordOrders)[number];
export const recordOutcomes = ["open", "held", "came-back", "deleted"] as const;
export type RecordOutcome = (typeof recordOutcomes)[number];

/** The query of the records; an empty text is no condition. */
export interface RecordQuery {
  /** Words in the vehicle, the complaint, what was found, or the notes. */
  readonly words: string;
  readonly vehicle: number | null;
  readonly circuit: string;
  /** A fault by kind and mode, `link open`. */
  readonly fault: string;
  /** The part replaced, by the kind that sets its price. */
  readonly part: string;
  readonly outcome: RecordOutcome | "";
  readonly order: RecordOrder;
  readonly down: boolean;
  readonly from: number;
  readonly count: number;
}

export const everything: RecordQuery = {
  words: "",
  vehicle: null,
  circuit: "",
  fault: "",
  part: "",
  outcome: "",
  order: "came",
  down: true,
  from: 0,
  count: 50,
};
