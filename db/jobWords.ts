/** Where a job stands, from arrival to the card in the file. */
export const jobStages = ["probing", "part-awaited", "proof-due", "closed"] as const;
export type JobStage = (typeof jobStages)[number];

/** What the customer noticed beside the speeds; noted on the card. */
export const noticeable = ["noise", "smell", "water", "comes-and-goes"] as const;
export type Noticed = (typeof noticeable)[number];
