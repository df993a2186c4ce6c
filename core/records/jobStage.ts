import { z } from "zod";

/** The stage of a job, from arrival to the closed record. */
export const jobStages = ["probing", "part-awaited", "proof-due", "closed"] as const;
export type JobStage = (typeof jobStages)[number];

/** Why a job refused an entry: the job is deleted or at another stage, or the entry's id belongs to another job. */
export const jobRefusalSchema = z.discriminatedUnion("code", [
  z.strictObject({ code: z.literal("job-deleted"), at: z.iso.datetime() }),
  z.strictObject({
    code: z.literal("other-stage"),
    stage: z.enum(jobStages),
    /** When the job came to that stage; null if its history does not say. */
    at: z.iso.datetime().nullable(),
  }),
  z.strictObject({ code: z.literal("id-taken") }),
]);
export type JobRefusal = z.infer<typeof jobRefusalSchema>;
