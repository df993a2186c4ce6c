import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import { maybeMoment, maybeText, moment, named, number, text } from "../columns";

/** A line of a job's work list. */
export class WorkRow extends Model<InferAttributes<WorkRow>, InferCreationAttributes<WorkRow>> {
  declare id: string;
  declare jobId: number;
  declare round: number;
  declare part: CreationOptional<string | null>;
  declare what: string;
  /** The kind of part that sets its price. */
  declare kind: string;
  declare done: string;
  declare state: string;
  declare body: string;
  declare doneBy: CreationOptional<string | null>;
  declare madeAt: Date;
  declare struckAt: CreationOptional<Date | null>;
}

/** A further fault that a closing found. */
export class ClosureFaultRow extends Model<
  InferAttributes<ClosureFaultRow>,
  InferCreationAttributes<ClosureFaultRow>
> {
  declare id: string;
  declare jobId: number;
  declare part: string;
  declare fault: string;
  declare kind: string;
  declare mode: string;
  declare family: string;
  /** 1 if the shop's statistics count it. */
  declare counted: number;
}

/** A job's work list, and the further faults its closing found. */
export function defineWorks(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false } as const;
  WorkRow.init(
    {
      id: named(),
      jobId: number(),
      round: number(),
      part: maybeText(),
      what: text(),
      kind: text(),
      done: text(),
      state: text(),
      body: text(),
      doneBy: maybeText(),
      madeAt: moment(),
      struckAt: maybeMoment(),
    },
    { ...plain, tableName: "works" },
  );
  ClosureFaultRow.init(
    {
      id: named(),
      jobId: number(),
      part: text(),
      fault: text(),
      kind: text(),
      mode: text(),
      family: text(),
      counted: number(),
    },
    { ...plain, tableName: "closureFaults" },
  );
}
