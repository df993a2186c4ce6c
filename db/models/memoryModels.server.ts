import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import {
  counted,
  maybeMoment,
  maybeNumber,
  maybeReal,
  maybeText,
  moment,
  number,
  real,
  text,
} from "../columns";

/** Parts fitted on a verdict, and whether the repair held. */
export class FittingRow extends Model<InferAttributes<FittingRow>, InferCreationAttributes<FittingRow>> {
  declare id: CreationOptional<number>;
  declare jobId: number;
  declare parts: string;
  /** Belief in the verdict when they were fitted. */
  declare p: number;
  declare state: string;
  declare looks: number;
  declare minutes: number;
  declare fittedAt: Date;
  declare outcome: string;
  declare outcomeAt: CreationOptional<Date | null>;
  /** What the old parts turned out to be, by part. */
  declare found: CreationOptional<string | null>;
}

export class ClosureRow extends Model<InferAttributes<ClosureRow>, InferCreationAttributes<ClosureRow>> {
  declare jobId: number;
  declare fault: string;
  declare kind: string;
  declare mode: string;
  declare family: string;
  declare cause: string;
  declare symptom: string;
  declare looks: number;
  declare minutes: number;
  declare chartMinutes: number | null;
  declare repairKind: string;
  declare repairMinutes: number | null;
  declare totalMinor: number | null;
  declare closedAt: Date;
  /** 1 if the shop's statistics count it. */
  declare counted: number;
  /** When somebody followed it up. */
  declare followedUpAt: CreationOptional<Date | null>;
  declare body: string;
}

/** What the second look at an older closing changed. */
export class SecondLookRow extends Model<
  InferAttributes<SecondLookRow>,
  InferCreationAttributes<SecondLookRow>
> {
  declare jobId: number;
  declare before: string;
  declare after: string;
  declare lookedAt: Date;
  declare undoneAt: CreationOptional<Date | null>;
}

/** One line of a job's audit trail, written by the database itself. */
export class EventRow extends Model<InferAttributes<EventRow>, InferCreationAttributes<EventRow>> {
  declare id: CreationOptional<number>;
  declare jobId: number;
  declare at: string;
  declare what: string;
  declare about: string | null;
}

/** Confirmed faults by family, kind and mode, kept by the database as jobs close. */
export class FaultCountRow extends Model<
  InferAttributes<FaultCountRow>,
  InferCreationAttributes<FaultCountRow>
> {
  declare family: string;
  declare kind: string;
  declare mode: string;
  declare n: number;
}

/** Minutes of repairs by the parts replaced, kept by the database as jobs close. */
export class RepairSumRow extends Model<
  InferAttributes<RepairSumRow>,
  InferCreationAttributes<RepairSumRow>
> {
  declare kind: string;
  declare jobs: number;
  declare minutes: number;
}

/** The tables of what was fitted, closed and learned. */
export function defineMemory(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false } as const;
  FittingRow.init(
    {
      id: counted(),
      jobId: number(),
      parts: text(),
      p: real(),
      state: text(),
      looks: number(),
      minutes: real(),
      fittedAt: moment(),
      outcome: text(),
      outcomeAt: maybeMoment(),
      found: maybeText(),
    },
    { ...plain, tableName: "fittings" },
  );
  ClosureRow.init(
    {
      jobId: { ...number(), primaryKey: true },
      fault: text(),
      kind: text(),
      mode: text(),
      family: text(),
      cause: text(),
      symptom: text(),
      looks: number(),
      minutes: real(),
      chartMinutes: maybeReal(),
      repairKind: text(),
      repairMinutes: maybeReal(),
      totalMinor: maybeNumber(),
      closedAt: moment(),
      counted: number(),
      followedUpAt: maybeMoment(),
      body: text(),
    },
    { ...plain, tableName: "closures" },
  );
  SecondLookRow.init(
    {
      jobId: { ...number(), primaryKey: true },
      before: text(),
      after: text(),
      lookedAt: moment(),
      undoneAt: maybeMoment(),
    },
    { ...plain, tableName: "secondLooks" },
  );
  EventRow.init(
    { id: counted(), jobId: number(), at: text(), what: text(), about: maybeText() },
    { ...plain, tableName: "events" },
  );
  RepairSumRow.init(
    { kind: { ...text(), primaryKey: true }, jobs: number(), minutes: real() },
    { ...plain, tableName: "repairSums" },
  );
  FaultCountRow.init(
    {
      family: { ...text(), primaryKey: true },
      kind: { ...text(), primaryKey: true },
      mode: { ...text(), primaryKey: true },
      n: number(),
    },
    { ...plain, tableName: "faultCounts" },
  );
}
