import type { QueryInterface } from "sequelize";

/** Where a job begins to look: by the arithmetic alone unless its technician chooses a school. */
export const strategy = {
  name: "003-school",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.sequelize.query("ALTER TABLE jobs ADD COLUMN school TEXT NOT NULL DEFAULT 'least-time'");
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.sequelize.query("ALTER TABLE jobs DROP COLUMN school");
  },
};
