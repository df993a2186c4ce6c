import type { QueryInterface } from "sequelize";

/** Circuits that came with a practice case are stored apart from the shelf's, and are not versions of them. */
export const practiceCircuits = {
  name: "012-practice-circuits",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.sequelize.query("ALTER TABLE circuits ADD COLUMN onShelf INTEGER NOT NULL DEFAULT 1");
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.sequelize.query("ALTER TABLE circuits DROP COLUMN onShelf");
  },
};
