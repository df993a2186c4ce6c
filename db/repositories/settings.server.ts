import { defaultShopTerms, type ShopTerms, shopTermsSchema } from "@core/money/shopTerms";
import { database } from "../database.server";
import { SettingRow } from "../models.server";

const terms = "shop-terms";

/** What the shop charges and how; the usual where it has set nothing. */
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

/** Whether the shop's own closed jobs sharpen its odds; they do unless switched off. */
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
