import { DataTypes, type QueryInterface } from "sequelize";

/** Versions of circuits, so that a job's circuit never changes under it. `about` holds the search text. */
export const circuitVersions = {
  name: "005-circuit-versions",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    const { sequelize } = context;
    await sequelize.query("ALTER TABLE circuits ADD COLUMN shelfId TEXT NOT NULL DEFAULT ''");
    await sequelize.query("ALTER TABLE circuits ADD COLUMN version INTEGER NOT NULL DEFAULT 1");
    await sequelize.query("ALTER TABLE circuits ADD COLUMN about TEXT NOT NULL DEFAULT ''");
    await sequelize.query("UPDATE circuits SET shelfId = id");
    await context.addIndex("circuits", ["shelfId", "version"], { unique: true });
    await context.createTable("circuitNotes", {
      id: { type: DataTypes.TEXT, primaryKey: true },
      shelfId: { type: DataTypes.TEXT, allowNull: false },
      words: { type: DataTypes.TEXT, allowNull: false },
      takenAt: { type: DataTypes.DATE, allowNull: false },
      struckAt: { type: DataTypes.DATE, allowNull: true },
    });
    await context.addIndex("circuitNotes", ["shelfId"]);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.dropTable("circuitNotes");
    await context.removeIndex("circuits", ["shelfId", "version"]);
    for (const column of ["about", "version", "shelfId"])
      await context.sequelize.query(`ALTER TABLE circuits DROP COLUMN ${column}`);
  },
};
