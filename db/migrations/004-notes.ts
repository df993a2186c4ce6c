import { DataTypes, type QueryInterface } from "sequelize";

/** Notes and photos of a job, and the cautions its technician has acknowledged. */
export const notes = {
  name: "004-notes",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    const text = (allowNull = false) => ({ type: DataTypes.TEXT, allowNull });
    const number = () => ({ type: DataTypes.INTEGER, allowNull: false });
    await context.createTable("notes", {
      id: { type: DataTypes.TEXT, primaryKey: true },
      jobId: { ...number(), references: { model: "jobs", key: "id" }, onDelete: "RESTRICT" },
      readingId: { ...text(true), references: { model: "readings", key: "id" }, onDelete: "RESTRICT" },
      words: text(),
      takenAt: { type: DataTypes.DATE, allowNull: false },
      struckAt: { type: DataTypes.DATE, allowNull: true },
    });
    await context.addIndex("notes", ["jobId"]);
    await context.createTable("photos", {
      noteId: {
        type: DataTypes.TEXT,
        primaryKey: true,
        references: { model: "notes", key: "id" },
        onDelete: "RESTRICT",
      },
      width: number(),
      height: number(),
      jpeg: { type: DataTypes.BLOB, allowNull: false },
    });
    await context.sequelize.query("ALTER TABLE jobs ADD COLUMN cautionsRead TEXT NOT NULL DEFAULT '[]'");
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.dropTable("photos");
    await context.dropTable("notes");
    await context.sequelize.query("ALTER TABLE jobs DROP COLUMN cautionsRead");
  },
};
