import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import { maybeMoment, maybeText, moment, named, number, real, text } from "../columns";

export class PartSourceRow extends Model<
  InferAttributes<PartSourceRow>,
  InferCreationAttributes<PartSourceRow>
> {
  declare id: string;
  declare jobId: number;
  declare part: string;
  declare source: string;
  declare number: string | null;
  declare priceMinor: number;
  /** A day, `2026-12-03`. */
  declare arrivesOn: string | null;
  declare chosen: number;
  declare takenAt: Date;
  declare struckAt: CreationOptional<Date | null>;
}

export class BookTimeRow extends Model<InferAttributes<BookTimeRow>, InferCreationAttributes<BookTimeRow>> {
  declare id: string;
  declare shelfId: string;
  declare part: string;
  declare minutes: number;
  declare source: string;
  declare takenAt: Date;
}

/** Where parts can be had, and book times. */
export function defineSources(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false } as const;
  PartSourceRow.init(
    {
      id: named(),
      jobId: number(),
      part: text(),
      source: text(),
      number: maybeText(),
      priceMinor: number(),
      arrivesOn: maybeText(),
      chosen: number(),
      takenAt: moment(),
      struckAt: maybeMoment(),
    },
    { ...plain, tableName: "partSources" },
  );
  BookTimeRow.init(
    { id: named(), shelfId: text(), part: text(), minutes: real(), source: text(), takenAt: moment() },
    { ...plain, tableName: "bookTimes" },
  );
}
