import type { QueryInterface } from "sequelize";

/** A job's strategy: the calculation alone, unless its technician chooses another. */
export const strategy = {
  name: "003-school",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.sequelize.query("ALTER TABLE jobs ADD COLUMN school TEXT NOT NULL DEFAULT 'least-time'");
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.sequelize.query("ALTER TABLE jobs DROP COLUMN school");
  },
};
