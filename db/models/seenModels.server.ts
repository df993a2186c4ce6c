import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import { counted, maybeMoment, maybeNumber, maybeText, moment, named, number, text } from "../columns";

export class SeenJobRow extends Model<InferAttributes<SeenJobRow>, InferCreationAttributes<SeenJobRow>> {
  declare id: CreationOptional<number>;
  declare formToken: string;
  declare label: string;
  declare words: string;
  declare seen: string;
  declare outOfReach: CreationOptional<string>;
  declare cautionsRead: CreationOptional<string>;
  /** The job that it went on as, with the circuit worked out; null before. */
  declare jobId: CreationOptional<number | null>;
  declare deletedAt: CreationOptional<Date | null>;
  /** Grows with every change; the database itself counts. */
  declare changes: CreationOptional<number>;
  declare createdAt: CreationOptional<Date>;
}

export class SeenReadingRow extends Model<
  InferAttributes<SeenReadingRow>,
  InferCreationAttributes<SeenReadingRow>
> {
  declare id: string;
  declare seenJobId: number;
  declare number: number;
  declare body: string;
  declare takenAt: Date;
  /** Who took it, while the shop knows its people. */
  declare takenBy: CreationOptional<string | null>;
  declare struckAt: CreationOptional<Date | null>;
}

/** Jobs without a diagram, and their readings. */
export function defineSeenJobs(sequelize: Sequelize): void {
  SeenJobRow.init(
    {
      id: counted(),
      formToken: text(),
      label: text(),
      words: text(),
      seen: text(),
      outOfReach: { ...text(), defaultValue: "[]" },
      cautionsRead: { ...text(), defaultValue: "[]" },
      jobId: maybeNumber(),
      deletedAt: maybeMoment(),
      changes: { ...number(), defaultValue: 0 },
      createdAt: moment(),
    },
    { sequelize, timestamps: true, updatedAt: false, tableName: "seenJobs" },
  );
  SeenReadingRow.init(
    {
      id: named(),
      seenJobId: number(),
      number: number(),
      body: text(),
      takenAt: moment(),
      takenBy: maybeText(),
      struckAt: maybeMoment(),
    },
    { sequelize, timestamps: false, tableName: "seenReadings" },
  );
}
