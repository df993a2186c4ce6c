import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import { counted, maybeMoment, moment, named, number, text } from "../columns";

export class PlanRow extends Model<InferAttributes<PlanRow>, InferCreationAttributes<PlanRow>> {
  declare shelfId: string;
  /** Number of the current body; those above it are undone. */
  declare position: number;
  /** Id of the last change made or undone; sent again, it is not applied twice. */
  declare taken: string;
}

export class PlanBodyRow extends Model<InferAttributes<PlanBodyRow>, InferCreationAttributes<PlanBodyRow>> {
  declare id: CreationOptional<number>;
  declare shelfId: string;
  declare number: number;
  declare body: string;
  declare takenAt: Date;
}

export class PlanNoteRow extends Model<InferAttributes<PlanNoteRow>, InferCreationAttributes<PlanNoteRow>> {
  declare id: string;
  declare shelfId: string;
  declare step: string;
  declare words: string;
  declare takenAt: Date;
  declare struckAt: CreationOptional<Date | null>;
}

/** Access plans, and notes on them. */
export function definePlans(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false } as const;
  PlanRow.init({ shelfId: named(), position: number(), taken: text() }, { ...plain, tableName: "plans" });
  PlanBodyRow.init(
    { id: counted(), shelfId: text(), number: number(), body: text(), takenAt: moment() },
    { ...plain, tableName: "planBodies" },
  );
  PlanNoteRow.init(
    { id: named(), shelfId: text(), step: text(), words: text(), takenAt: moment(), struckAt: maybeMoment() },
    { ...plain, tableName: "planNotes" },
  );
}
