import type { QueryInterface } from "sequelize";

/** Records that are brought in name their vehicles: each is looked up, whatever the shop has. */
export const vehicleNames = {
  name: "014-vehicle-names",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.addIndex("vehicles", ["label", "model"]);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.removeIndex("vehicles", ["label", "model"]);
  },
};
