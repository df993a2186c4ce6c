import type { QueryInterface } from "sequelize";

/** An index for looking up vehicles by name, which an import does for each record. */
export const vehicleNames = {
  name: "014-vehicle-names",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.addIndex("vehicles", ["label", "model"]);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.removeIndex("vehicles", ["label", "model"]);
  },
};
