import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from "sequelize";
import { maybeMoment, moment, named, number, text } from "../columns";

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

/** The shelf: circuits, notes on them, and drafts. */
export function defineCircuits(sequelize: Sequelize): void {
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
