import {
  type CreationOptional,
  DataTypes,
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
  named,
  number,
  text,
} from "./columns";
import { defineMemory } from "./memoryModels.server";
import { definePractice } from "./practiceModels.server";

export class CircuitRow extends Model<InferAttributes<CircuitRow>, InferCreationAttributes<CircuitRow>> {
  declare id: string;
  /** The circuit's own id, shared by its versions. */
  declare shelfId: string;
  declare version: number;
  declare title: string;
  declare body: string;
  /** The text a search reads, as JSON; empty until it is computed. */
  declare about: CreationOptional<string>;
  /** 1 for versions of the shelf's circuits; 0 for one that came with a practice case. */
  declare onShelf: CreationOptional<number>;
  declare createdAt: CreationOptional<Date>;
}

export class CircuitNoteRow extends Model<
  InferAttributes<CircuitNoteRow>,
  InferCreationAttributes<CircuitNoteRow>
> {
  declare id: string;
  declare shelfId: string;
  declare words: string;
  declare takenAt: Date;
  declare struckAt: CreationOptional<Date | null>;
}

export class DraftRow extends Model<InferAttributes<DraftRow>, InferCreationAttributes<DraftRow>> {
  declare id: string;
  declare name: string;
  declare base: string;
  declare steps: string;
  declare position: number;
  /** Id of the last step made or undone; sent again, it is not applied twice. */
  declare taken: string;
  declare changedAt: Date;
}

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
  declare decidedAt: CreationOptional<Date | null>;
}

/** The board's line for a job, and the state of the job it was made from. */
export class JobLineRow extends Model<InferAttributes<JobLineRow>, InferCreationAttributes<JobLineRow>> {
  declare jobId: number;
  declare revision: number;
  declare school: string;
  declare line: string;
  declare madeAt: Date;
}

export class ReadingRow extends Model<InferAttributes<ReadingRow>, InferCreationAttributes<ReadingRow>> {
  declare id: string;
  declare jobId: number;
  declare number: number;
  declare body: string;
  /** The instrument it was read from; null if it was entered by hand. */
  declare source: CreationOptional<string | null>;
  declare takenAt: Date;
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

export class RepairRow extends Model<InferAttributes<RepairRow>, InferCreationAttributes<RepairRow>> {
  declare jobId: number;
  declare targets: string;
  declare prefer: string;
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
}

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

/** Binds the tables' models to a connection. */
export function defineModels(sequelize: Sequelize): void {
  defineCircuits(sequelize);
  defineJobs(sequelize);
  defineEntries(sequelize);
  defineMemory(sequelize);
  definePractice(sequelize);
  definePlans(sequelize);
  defineRepairs(sequelize);
  defineParts(sequelize);
}

/** The shelf: circuits, notes on them, and drafts. */
function defineCircuits(sequelize: Sequelize): void {
  const options = { sequelize, timestamps: true, updatedAt: false } as const;
  const plain = { sequelize, timestamps: false } as const;
  CircuitRow.init(
    {
      id: named(),
      shelfId: text(),
      version: number(),
      title: text(),
      body: text(),
      about: { ...text(), defaultValue: "" },
      onShelf: { ...number(), defaultValue: 1 },
      createdAt: moment(),
    },
    { ...options, tableName: "circuits" },
  );
  CircuitNoteRow.init(
    { id: named(), shelfId: text(), words: text(), takenAt: moment(), struckAt: maybeMoment() },
    { ...plain, tableName: "circuitNotes" },
  );
  DraftRow.init(
    {
      id: named(),
      name: text(),
      base: text(),
      steps: text(),
      position: number(),
      taken: text(),
      changedAt: moment(),
    },
    { ...plain, tableName: "drafts" },
  );
}

/** Vehicles and their jobs. */
function defineJobs(sequelize: Sequelize): void {
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
      decidedAt: maybeMoment(),
    },
    { sequelize, timestamps: false, tableName: "setAside" },
  );
}

/** What is entered on a job. */
function defineEntries(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false } as const;
  ReadingRow.init(
    {
      id: named(),
      jobId: number(),
      number: number(),
      body: text(),
      source: maybeText(),
      takenAt: moment(),
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

/** Access plans, and notes on them. */
function definePlans(sequelize: Sequelize): void {
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

/** A job's repair, and its ticks. */
function defineRepairs(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false } as const;
  RepairRow.init(
    { jobId: { ...number(), primaryKey: true }, targets: text(), prefer: text() },
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
    },
    { ...plain, tableName: "fitTicks" },
  );
}

/** Parts, their comparisons, and the costs of a job. */
function defineParts(sequelize: Sequelize): void {
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
