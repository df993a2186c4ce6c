import { resolve } from "node:path";

/** The folder of everything the shop stores; AIRWAY_DATA moves it. */
export const dataFolder = (): string => resolve(process.env.AIRWAY_DATA ?? "data");
