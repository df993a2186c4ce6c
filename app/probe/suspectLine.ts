/** A part under suspicion with the faults inside it. */
export interface SuspectLine {
  /** Its own key: a motor that squeals and one that is dead are two lines. */
  readonly key: string;
  /** What is to be put right, as text. */
  readonly repair: string;
  /** True for what tells by the hand, the ear and the air, with a normal current. */
  readonly mechanical: boolean;
  readonly name: string;
  readonly p: number;
  /** Before the first reading and after each. */
  readonly moved: readonly number[];
  readonly faults: readonly {
    readonly fault: string;
    readonly words: string;
    readonly p: number;
    readonly why: string;
  }[];
}
