import type { QueryInterface } from "sequelize";
import { moment, number, text } from "../columns";

/** The board's line for each job, worked out once for each state of the job. */
export const jobLines = {
  name: "011-job-lines",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.createTable("jobLines", {
      jobId: {
        ...number(),
        primaryKey: true,
        references: { model: "jobs", key: "id" },
        onDelete: "RESTRICT",
      },
      revision: number(),
      school: text(),
      line: text(),
      madeAt: moment(),
    });
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.dropTable("jobLines");
  },
};
