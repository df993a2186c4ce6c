import type { BoardGroup } from "@core/records/boardGroup";
import { everyWord } from "../find/everyWord";

/** A job as the board shows it. */
export interface BoardJob {
  readonly id: number;
  readonly label: string;
  readonly model: string;
  readonly words: string;
  readonly group: BoardGroup;
  /** What happens next, in one line; null while it is being worked out for the first time. */
  readonly line: string | null;
  /** When it came in, as an ISO time, and in words. */
  readonly came: string;
  readonly age: string;
  /** When it is promised, on the shop's clock, `2026-12-24T16:00`; in words; and whether that has passed. */
  readonly promised: string | null;
  readonly promise: string | null;
  readonly late: boolean;
  /** The job whose repair it came back from. */
  readonly comebackOf: number | null;
}

/** Orders of the board, with their words. */
export const boardOrders = {
  promised: "promised first",
  oldest: "oldest first",
  newest: "newest first",
  vehicle: "by vehicle",
} as const;
export type BoardOrder = keyof typeof boardOrders;

const later = "9999";

const compare: Readonly<Record<BoardOrder, (a: BoardJob, b: BoardJob) => number>> = {
  promised: (a, b) =>
    (a.promised ?? later).localeCompare(b.promised ?? later) || a.came.localeCompare(b.came),
  oldest: (a, b) => a.came.localeCompare(b.came),
  newest: (a, b) => b.came.localeCompare(a.came),
  vehicle: (a, b) => a.label.localeCompare(b.label),
};

/** Filters jobs by a query, whose words must all occur in a job's texts or number, and sorts them. */
export function jobsShown(jobs: readonly BoardJob[], query: string, order: BoardOrder): BoardJob[] {
  const matches = everyWord(query);
  return jobs
    .filter(({ id, model, label, words, line, promise }) =>
      matches(`${model}, ${label} ${words} ${line ?? ""} ${promise ?? ""} job ${id}`),
    )
    .sort((a, b) => compare[order](a, b) || a.id - b.id);
}
