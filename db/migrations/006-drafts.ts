import { DataTypes, type QueryInterface } from "sequelize";

/** Circuits being traced or changed: their start, and every step since, so that each can be undone. */
export const drafts = {
  name: "006-drafts",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.createTable("drafts", {
      id: { type: DataTypes.TEXT, primaryKey: true },
      name: { type: DataTypes.TEXT, allowNull: false },
      base: { type: DataTypes.TEXT, allowNull: false },
      steps: { type: DataTypes.TEXT, allowNull: false },
      position: { type: DataTypes.INTEGER, allowNull: false },
      taken: { type: DataTypes.TEXT, allowNull: false },
      changedAt: { type: DataTypes.DATE, allowNull: false },
    });
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.dropTable("drafts");
  },
};
