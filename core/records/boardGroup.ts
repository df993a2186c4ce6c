import type { JobStage } from "./jobStage";

/** The groups of the board, in the order of the work. */
export const boardGroups = ["to-test", "part-awaited", "to-repair", "to-check", "done"] as const;
export type BoardGroup = (typeof boardGroups)[number];

/** What decides the group of a job. */
export interface JobStanding {
  readonly stage: JobStage;
  /** Whether the ordered parts have arrived. */
  readonly partsIn: boolean;
  /** Whether testing is over: the verdict is confirmed, or no further test is worth its cost. */
  readonly decided: boolean;
}

/** Chooses a job's group on the board by what has to be done next. */
export function boardGroup({ stage, partsIn, decided }: JobStanding): BoardGroup {
  switch (stage) {
    case "probing":
      return decided ? "to-repair" : "to-test";
    case "part-awaited":
      return partsIn ? "to-repair" : "part-awaited";
    case "proof-due":
      return "to-check";
    case "closed":
      return "done";
  }
}
