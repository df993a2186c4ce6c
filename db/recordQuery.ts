/** What the records can be ordered by. */
export const recordOrders = ["closed", "came", "vehicle", "circuit", "fault", "minutes", "money"] as const;
export type RecordOrder = (typeof recordOrders)[number];
export const recordOutcomes = ["open", "held", "came-back", "deleted"] as const;
export type RecordOutcome = (typeof recordOutcomes)[number];

/** What is asked of the records; an empty text asks nothing. */
export interface RecordQuery {
  /** Words of the vehicle, the complaint, what was found, the notes. */
  readonly words: string;
  readonly vehicle: number | null;
  readonly circuit: string;
  /** A fault by kind and mode, `link open`. */
  readonly fault: string;
  /** What was replaced, by the kind its money goes by. */
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
