import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import { maybeMoment, maybeText, moment, named, number, text } from "../columns";

export class ReadingRow extends Model<InferAttributes<ReadingRow>, InferCreationAttributes<ReadingRow>> {
  declare id: string;
  declare jobId: number;
  declare number: number;
  declare body: string;
  /** The instrument it was read from; null if it was entered by hand. */
  declare source: CreationOptional<string | null>;
  declare takenAt: Date;
  /** Who took it, while the shop knows its people; empty if that is not known. */
  declare takenBy: CreationOptional<string | null>;
  declare struckAt: CreationOptional<Date | null>;
}

export class RecordingRow extends Model<
  InferAttributes<RecordingRow>,
  InferCreationAttributes<RecordingRow>
> {
  declare id: string;
  declare jobId: number;
  declare record: string;
  declare samples: Buffer;
  declare healthyOf: CreationOptional<string | null>;
  declare takenAt: Date;
  declare struckAt: CreationOptional<Date | null>;
}

export class NoteRow extends Model<InferAttributes<NoteRow>, InferCreationAttributes<NoteRow>> {
  declare id: string;
  declare jobId: number;
  declare readingId: CreationOptional<string | null>;
  declare workId: CreationOptional<string | null>;
  declare words: string;
  declare takenAt: Date;
  declare struckAt: CreationOptional<Date | null>;
}

export class PhotoRow extends Model<InferAttributes<PhotoRow>, InferCreationAttributes<PhotoRow>> {
  declare noteId: string;
  declare width: number;
  declare height: number;
  declare jpeg: Buffer;
}

export class ProofRow extends Model<InferAttributes<ProofRow>, InferCreationAttributes<ProofRow>> {
  declare id: string;
  declare jobId: number;
  declare step: string;
  declare body: string;
  /** The judgement of the finding at the time. */
  declare judged: string;
  declare takenAt: Date;
}

/** What is entered on a job. */
export function defineEntries(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false } as const;
  ReadingRow.init(
    {
      id: named(),
      jobId: number(),
      number: number(),
      body: text(),
      source: maybeText(),
      takenAt: moment(),
      takenBy: maybeText(),
      struckAt: maybeMoment(),
    },
    { ...plain, tableName: "readings" },
  );
  RecordingRow.init(
    {
      id: named(),
      jobId: number(),
      record: text(),
      samples: { type: DataTypes.BLOB, allowNull: false },
      healthyOf: maybeText(),
      takenAt: moment(),
      struckAt: maybeMoment(),
    },
    { ...plain, tableName: "traces" },
  );
  NoteRow.init(
    {
      id: named(),
      jobId: number(),
      readingId: maybeText(),
      workId: maybeText(),
      words: text(),
      takenAt: moment(),
      struckAt: maybeMoment(),
    },
    { ...plain, tableName: "notes" },
  );
  PhotoRow.init(
    {
      noteId: named(),
      width: number(),
      height: number(),
      jpeg: { type: DataTypes.BLOB, allowNull: false },
    },
    { ...plain, tableName: "photos" },
  );
  ProofRow.init(
    { id: named(), jobId: number(), step: text(), body: text(), judged: text(), takenAt: moment() },
    { ...plain, tableName: "proofs" },
  );
}
