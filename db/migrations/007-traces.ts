import { DataTypes, type QueryInterface } from "sequelize";

/** Recordings of a motor's current and sound, stored with their job; and the instrument a reading came from. */
export const traces = {
  name: "007-traces",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    const text = () => ({ type: DataTypes.TEXT, allowNull: false });
    await context.createTable("traces", {
      id: { type: DataTypes.TEXT, primaryKey: true },
      jobId: {
        type: DataTypes.INTEGER,
        allowNull: false,
        references: { model: "jobs", key: "id" },
        onDelete: "RESTRICT",
      },
      record: text(),
      samples: { type: DataTypes.BLOB, allowNull: false },
      healthyOf: { type: DataTypes.TEXT, allowNull: true },
      takenAt: { type: DataTypes.DATE, allowNull: false },
      struckAt: { type: DataTypes.DATE, allowNull: true },
    });
    await context.addIndex("traces", ["jobId"]);
    await context.addIndex("traces", ["healthyOf"]);
    await context.sequelize.query("ALTER TABLE readings ADD COLUMN source TEXT");
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.dropTable("traces");
    await context.sequelize.query("ALTER TABLE readings DROP COLUMN source");
  },
};
