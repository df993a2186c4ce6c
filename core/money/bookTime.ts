/** Minutes of labour of a part in the maker's or the trade's book, and where they come from. */
export interface BookTime {
  readonly part: string;
  readonly minutes: number;
  readonly source: string;
}

/** What the minutes of several works are made from. */
interface BookInput {
  readonly entered: readonly BookTime[];
  /** Minutes of one work by itself, by the access plan, without the final check. */
  readonly alone: (id: string) => number;
  /** Minutes of several works together, shared access once. */
  readonly together: (ids: readonly string[]) => number;
}

/**
 * Book time of several works: what is entered of each, otherwise the plan's, less the access they share by the plan.
 * Never less than the longest of them.
 */
export function bookMinutes(ids: readonly string[], { entered, alone, together }: BookInput): number {
  const each = ids.map((id) => entered.find(({ part }) => part === id)?.minutes ?? alone(id));
  const sum = each.reduce((total, own) => total + own, 0);
  const shared = ids.reduce((total, id) => total + alone(id), 0) - together(ids);
  return Math.max(...each, 0, sum - Math.max(0, shared));
}
