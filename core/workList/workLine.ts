import { z } from "zod";
import { adaptationWorks } from "../access/adaptation";
import { mends, type WorkDone, worksDone } from "../labour/workDone";

const words = (most: number) => z.string().trim().min(1).max(most);
const minutes = z.number().min(0, "cannot be negative").max(1440, "cannot be more than a day");

/** The details of a line of work. */
export const workDetailSchema = z.strictObject({
  number: words(60).optional(),
  source: words(80).optional(),
  plannedMinutes: minutes.optional(),
  minutes: minutes.optional(),
  priceMinor: z.number().int().min(0, "cannot be negative").max(100_000_000).optional(),
  warrantyMonths: z.number().int().min(0).max(120).optional(),
  /** True for what only buys time, such as an oiled bearing. */
  temporary: z.boolean().optional(),
  /** The adaptation of a new part that this line is, and the part it is done for. */
  adapts: z.strictObject({ part: z.string().min(1).max(32), work: z.enum(adaptationWorks) }).optional(),
});

/** What is entered of a line of work. */
export const workEntrySchema = workDetailSchema.extend({
  /** The part, plug, wire or ground of the circuit; absent for anything else. */
  part: z.string().min(1).max(32).optional(),
  /** Its name, or whatever was worked on: `blower motor M1`, `battery terminal`. */
  what: z.string().trim().min(2, "enter what was worked on").max(120),
  done: z.enum(worksDone),
});
export type WorkEntry = z.infer<typeof workEntrySchema>;

/** Whether a line is still to be done. */
export const workStates = ["planned", "done"] as const;
export type WorkState = (typeof workStates)[number];

/** A line of work as a file holds it. */
export const workInFileSchema = workEntrySchema.extend({
  /** The series of tests, work and final check it belongs to, from 1. */
  round: z.number().int().min(1).max(20),
  state: z.enum(workStates),
});
export type WorkInFile = z.infer<typeof workInFileSchema>;

/** One line of a job's work list. */
export interface WorkLine extends WorkInFile {
  readonly id: string;
  /** Who did it; absent if that is not known. */
  readonly doneBy?: string;
}

/** What is done to something: a part of the circuit, or anything else. */
export interface Cure {
  readonly part?: string | undefined;
  readonly done: WorkDone;
}

/** Parts of the circuit that lines mean to cure, for good or for a while, each once. */
export const partsRepaired = (lines: readonly Cure[]): string[] => [
  ...new Set(lines.flatMap(({ part, done }) => (part && (mends(done) || done === "oiled") ? [part] : []))),
];

/** Parts of the circuit that were put right, in the order of the work, each once. */
export const partsMended = (lines: readonly WorkLine[]): string[] => [
  ...new Set(
    lines.flatMap(({ part, done, state }) => (part && state === "done" && mends(done) ? [part] : [])),
  ),
];
