import type { BookTime } from "@core/money/bookTime";
import { database } from "../database.server";
import { BookTimeRow } from "../models/sourceModels.server";

/** The book times entered for a model's parts. */
export async function bookTimesOf(shelfId: string): Promise<BookTime[]> {
  const rows = await BookTimeRow.findAll({ where: { shelfId }, order: [["part", "ASC"]] });
  return rows.map(({ part, minutes, source }) => ({ part, minutes, source }));
}

/** Stores the book time of a model's part in place of an earlier one; null removes it. */
export async function setBookTime(
  shelfId: string,
  part: string,
  time: Omit<BookTime, "part"> | null,
  takenAt: Date,
): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    await BookTimeRow.destroy({ where: { shelfId, part }, transaction });
    if (time)
      await BookTimeRow.create(
        { id: `${shelfId} ${part}`, shelfId, part, ...time, takenAt },
        { transaction },
      );
  });
}
