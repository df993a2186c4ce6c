/** A part under suspicion with the faults inside it. */
export interface SuspectLine {
  /** Its own key, because a motor that squeals and one that is dead are two lines. */
  readonly key: string;
  /** What is to be repaired, as text. */
  readonly repair: string;
  /** True for a fault that shows in feel, noise and air, with a normal current. */
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
