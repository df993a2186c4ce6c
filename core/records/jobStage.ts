import { z } from "zod";

/** Where a job stands, from arrival to the card in the file. */
export const jobStages = ["probing", "part-awaited", "proof-due", "closed"] as const;
export type JobStage = (typeof jobStages)[number];

/** Why a job did not take what was sent: it is deleted, at another stage, or the entry's id is another job's already. */
export const jobRefusalSchema = z.discriminatedUnion("code", [
  z.strictObject({ code: z.literal("job-deleted"), at: z.iso.datetime() }),
  z.strictObject({
    code: z.literal("other-stage"),
    stage: z.enum(jobStages),
    /** When the job came to that stage; null where its trail does not say. */
    at: z.iso.datetime().nullable(),
  }),
  z.strictObject({ code: z.literal("id-taken") }),
]);
export type JobRefusal = z.infer<typeof jobRefusalSchema>;
