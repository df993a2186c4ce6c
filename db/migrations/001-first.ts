import { DataTypes, type QueryInterface } from "sequelize";

/** The first tables: circuits, vehicles, jobs, their readings and their proof runs. */
export const first = {
  name: "001-first",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    const stamp = { type: DataTypes.DATE, allowNull: false };
    const text = (allowNull = false) => ({ type: DataTypes.TEXT, allowNull });
    const reference = (table: string) => ({
      references: { model: table, key: "id" },
      onDelete: "RESTRICT",
      allowNull: false,
    });
    await context.createTable("circuits", {
      id: { type: DataTypes.TEXT, primaryKey: true },
      title: text(),
      body: text(),
      createdAt: stamp,
    });
    await context.createTable("vehicles", {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      label: text(),
      model: text(),
      circuitId: { type: DataTypes.TEXT, ...reference("circuits") },
      createdAt: stamp,
    });
    await context.createTable("jobs", {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      vehicleId: { type: DataTypes.INTEGER, ...reference("vehicles") },
      circuitId: { type: DataTypes.TEXT, ...reference("circuits") },
      formToken: { type: DataTypes.TEXT, allowNull: false, unique: true },
      words: text(),
      noticed: text(),
      stage: text(),
      fitted: text(true),
      found: text(true),
      fittedAt: { type: DataTypes.DATE, allowNull: true },
      closedAt: { type: DataTypes.DATE, allowNull: true },
      createdAt: stamp,
    });
    await context.createTable("readings", {
      id: { type: DataTypes.TEXT, primaryKey: true },
      jobId: { type: DataTypes.INTEGER, ...reference("jobs") },
      number: { type: DataTypes.INTEGER, allowNull: false },
      body: text(),
      takenAt: stamp,
      struckAt: { type: DataTypes.DATE, allowNull: true },
    });
    await context.addIndex("readings", ["jobId", "number"], { unique: true });
    await context.createTable("proofs", {
      id: { type: DataTypes.TEXT, primaryKey: true },
      jobId: { type: DataTypes.INTEGER, ...reference("jobs") },
      step: text(),
      expected: text(),
      seen: text(),
      takenAt: stamp,
    });
    await context.addIndex("proofs", ["jobId"]);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    for (const table of ["proofs", "readings", "jobs", "vehicles", "circuits"])
      await context.dropTable(table);
  },
};
