/** Where a job stands, from arrival to the card in the file. */
export const jobStages = ["probing", "part-awaited", "proof-due", "closed"] as const;
export type JobStage = (typeof jobStages)[number];
