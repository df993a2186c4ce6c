import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import { counted, maybeMoment, maybeNumber, maybeText, moment, named, number, text } from "../columns";

export class VehicleRow extends Model<InferAttributes<VehicleRow>, InferCreationAttributes<VehicleRow>> {
  declare id: CreationOptional<number>;
  declare label: string;
  declare model: string;
  declare circuitId: string;
  declare createdAt: CreationOptional<Date>;
}

export class JobRow extends Model<InferAttributes<JobRow>, InferCreationAttributes<JobRow>> {
  declare id: CreationOptional<number>;
  declare vehicleId: number;
  declare circuitId: string;
  declare formToken: string;
  declare words: string;
  declare stage: string;
  declare school: CreationOptional<string>;
  declare cautionsRead: CreationOptional<string>;
  declare fitted: CreationOptional<string | null>;
  declare found: CreationOptional<string | null>;
  declare fittedAt: CreationOptional<Date | null>;
  declare closedAt: CreationOptional<Date | null>;
  declare promised: CreationOptional<string | null>;
  declare partsInAt: CreationOptional<Date | null>;
  /** The job whose repair this one came back from. */
  declare comebackOf: CreationOptional<number | null>;
  declare deletedAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
}

/** An entry that a job no longer takes, kept for a person to decide. */
export class SetAsideRow extends Model<InferAttributes<SetAsideRow>, InferCreationAttributes<SetAsideRow>> {
  declare id: string;
  declare jobId: number;
  declare address: string;
  declare fields: string;
  declare words: string;
  declare refusal: string;
  declare at: Date;
  /** Who sent it, while the shop knows its people. */
  declare who: CreationOptional<string | null>;
  declare decidedAt: CreationOptional<Date | null>;
  /** Once it is decided: 1 if it was stored after all, 0 if it was discarded. */
  declare stored: CreationOptional<number | null>;
}

/** The board's line for a job, and the state of the job it was made from. */
export class JobLineRow extends Model<InferAttributes<JobLineRow>, InferCreationAttributes<JobLineRow>> {
  declare jobId: number;
  declare revision: number;
  declare school: string;
  declare line: string;
  declare decided: number;
  declare madeAt: Date;
}

/** Vehicles and their jobs. */
export function defineJobs(sequelize: Sequelize): void {
  const options = { sequelize, timestamps: true, updatedAt: false } as const;
  VehicleRow.init(
    { id: counted(), label: text(), model: text(), circuitId: text(), createdAt: moment() },
    { ...options, tableName: "vehicles" },
  );
  JobRow.init(
    {
      id: counted(),
      vehicleId: number(),
      circuitId: text(),
      formToken: text(),
      words: text(),
      stage: text(),
      school: { ...text(), defaultValue: "least-time" },
      cautionsRead: { ...text(), defaultValue: "[]" },
      fitted: maybeText(),
      found: maybeText(),
      fittedAt: maybeMoment(),
      closedAt: maybeMoment(),
      promised: maybeText(),
      partsInAt: maybeMoment(),
      comebackOf: maybeNumber(),
      deletedAt: maybeMoment(),
      createdAt: moment(),
    },
    { ...options, tableName: "jobs" },
  );
  JobRow.belongsTo(VehicleRow, { as: "vehicle", foreignKey: "vehicleId" });
  JobLineRow.init(
    {
      jobId: { ...number(), primaryKey: true },
      revision: number(),
      school: text(),
      line: text(),
      decided: number(),
      madeAt: moment(),
    },
    { sequelize, timestamps: false, tableName: "jobLines" },
  );
  SetAsideRow.init(
    {
      id: named(),
      jobId: number(),
      address: text(),
      fields: text(),
      words: text(),
      refusal: text(),
      at: moment(),
      who: maybeText(),
      decidedAt: maybeMoment(),
      stored: maybeNumber(),
    },
    { sequelize, timestamps: false, tableName: "setAside" },
  );
}
