import { defaultShopTerms, type ShopTerms, shopTermsSchema } from "@core/money/shopTerms";
import type { Transaction } from "sequelize";
import { z } from "zod";
import { database } from "../database.server";
import { SettingRow } from "../models/moneyModels.server";

const terms = "shop-terms";

/** The shop's rates and taxes; defaults for what it has not set. */
export async function shopTerms(): Promise<ShopTerms> {
  const row = await SettingRow.findByPk(terms);
  return row ? shopTermsSchema.parse(JSON.parse(row.body)) : defaultShopTerms;
}

export async function setShopTerms(own: ShopTerms): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    SettingRow.upsert({ name: terms, body: JSON.stringify(own) }, { transaction }),
  );
}

const learning = "learning";

/** Whether the shop's own closed jobs update its priors; on unless switched off. */
export async function learningOn(): Promise<boolean> {
  const row = await SettingRow.findByPk(learning);
  return row?.body !== "off";
}

export async function setLearning(on: boolean): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    SettingRow.upsert({ name: learning, body: on ? "on" : "off" }, { transaction }),
  );
}

const demo = "demo";
const demoStates = z.enum(["loaded", "removed"]);
type DemoState = z.infer<typeof demoStates>;

/** Whether the demo workshop is loaded, or was removed by a user; null in a database that never had it. */
export async function demoState(): Promise<DemoState | null> {
  const row = await SettingRow.findByPk(demo);
  return row ? demoStates.parse(row.body) : null;
}

/** Stores that the demo workshop was loaded or removed, inside the caller's write. */
export async function insertDemoState(state: DemoState, transaction: Transaction): Promise<void> {
  await SettingRow.upsert({ name: demo, body: state }, { transaction });
}

const name = "shop-name";
/** The name of a shop that has set none. */
const defaultShopName = "Our workshop";

/** The shop's name. */
export async function shopName(): Promise<string> {
  const row = await SettingRow.findByPk(name);
  return row?.body ?? defaultShopName;
}

/** Stores the shop's name inside the caller's write. */
export async function insertShopName(own: string, transaction: Transaction): Promise<void> {
  await SettingRow.upsert({ name, body: own }, { transaction });
}

export async function setShopName(own: string): Promise<void> {
  const store = await database();
  await store.write((transaction) => insertShopName(own, transaction));
}
