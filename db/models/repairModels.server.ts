import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import { maybeMoment, maybeReal, maybeText, moment, named, number, text } from "../columns";

export class RepairRow extends Model<InferAttributes<RepairRow>, InferCreationAttributes<RepairRow>> {
  declare jobId: number;
  declare targets: string;
  declare prefer: string;
  /** The round of the job whose parts they are. */
  declare round: CreationOptional<number>;
}

export class RepairTickRow extends Model<
  InferAttributes<RepairTickRow>,
  InferCreationAttributes<RepairTickRow>
> {
  declare id: string;
  declare jobId: number;
  declare shelfId: string;
  declare step: string;
  declare way: string;
  declare screws: number;
  /** Minutes since the previous tick; null if they say nothing about the work. */
  declare minutes: number | null;
  declare takenAt: Date;
  declare struckAt: CreationOptional<Date | null>;
  /** Why it was ticked before a step it waits for. */
  declare reason: CreationOptional<string | null>;
  declare counts: CreationOptional<string | null>;
}

export class TrayNoteRow extends Model<InferAttributes<TrayNoteRow>, InferCreationAttributes<TrayNoteRow>> {
  declare id: string;
  declare jobId: number;
  declare kind: string;
  declare sort: string;
  declare count: number;
  declare words: string;
  declare takenAt: Date;
  declare struckAt: CreationOptional<Date | null>;
}

/** A job's repair, its ticks, and what became of its screws. */
export function defineRepairs(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false } as const;
  RepairRow.init(
    {
      jobId: { ...number(), primaryKey: true },
      targets: text(),
      prefer: text(),
      round: { ...number(), defaultValue: 1 },
    },
    { ...plain, tableName: "fits" },
  );
  RepairTickRow.init(
    {
      id: named(),
      jobId: number(),
      shelfId: text(),
      step: text(),
      way: text(),
      screws: number(),
      minutes: maybeReal(),
      takenAt: moment(),
      struckAt: maybeMoment(),
      reason: maybeText(),
      counts: maybeText(),
    },
    { ...plain, tableName: "fitTicks" },
  );
  TrayNoteRow.init(
    {
      id: named(),
      jobId: number(),
      kind: text(),
      sort: text(),
      count: number(),
      words: text(),
      takenAt: moment(),
      struckAt: maybeMoment(),
    },
    { ...plain, tableName: "trayNotes" },
  );
}
