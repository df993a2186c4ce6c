import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import { maybeMoment, maybeText, moment, named, number, text } from "../columns";

export class PartRow extends Model<InferAttributes<PartRow>, InferCreationAttributes<PartRow>> {
  declare number: string;
  declare body: string;
}

export class MatchRow extends Model<InferAttributes<MatchRow>, InferCreationAttributes<MatchRow>> {
  declare id: string;
  declare jobId: number;
  declare part: string;
  declare oldNumber: string | null;
  declare newNumber: string | null;
  declare overrides: string;
}

export class EstimateRow extends Model<InferAttributes<EstimateRow>, InferCreationAttributes<EstimateRow>> {
  declare id: string;
  declare jobId: number;
  declare number: number;
  declare kind: string;
  declare body: string;
  declare madeAt: Date;
  declare approvedAt: CreationOptional<Date | null>;
  declare approvedBy: CreationOptional<string | null>;
}

export class SettingRow extends Model<InferAttributes<SettingRow>, InferCreationAttributes<SettingRow>> {
  declare name: string;
  declare body: string;
}

/** Parts, their comparisons, and the costs of a job. */
export function defineParts(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false } as const;
  PartRow.init({ number: named(), body: text() }, { ...plain, tableName: "parts" });
  MatchRow.init(
    {
      id: named(),
      jobId: number(),
      part: text(),
      oldNumber: maybeText(),
      newNumber: maybeText(),
      overrides: text(),
    },
    { ...plain, tableName: "matches" },
  );
  EstimateRow.init(
    {
      id: named(),
      jobId: number(),
      number: number(),
      kind: text(),
      body: text(),
      madeAt: moment(),
      approvedAt: maybeMoment(),
      approvedBy: maybeText(),
    },
    { ...plain, tableName: "estimates" },
  );
  SettingRow.init({ name: named(), body: text() }, { ...plain, tableName: "settings" });
}
