import type { Sequelize } from "sequelize";
import { definePlans } from "./accessPlanModels.server";
import { defineEntries } from "./entryModels.server";
import { defineJobs } from "./jobModels.server";
import { defineMemory } from "./memoryModels.server";
import { defineParts } from "./moneyModels.server";
import { definePractice } from "./practiceModels.server";
import { defineRepairs } from "./repairModels.server";
import { defineSeenJobs } from "./seenModels.server";
import { defineCircuits } from "./shelfModels.server";
import { defineSources } from "./sourceModels.server";
import { defineWorks } from "./workModels.server";

/** Binds the tables' models to a connection. */
export function defineModels(sequelize: Sequelize): void {
  defineCircuits(sequelize);
  defineJobs(sequelize);
  defineEntries(sequelize);
  defineMemory(sequelize);
  definePractice(sequelize);
  definePlans(sequelize);
  defineRepairs(sequelize);
  defineParts(sequelize);
  defineSources(sequelize);
  defineWorks(sequelize);
  defineSeenJobs(sequelize);
}
