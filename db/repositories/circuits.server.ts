import type { Circuit } from "@core/circuit/circuit";
import { parseCircuit } from "@core/circuit/parseCircuit";
import type { Sequelize, Transaction } from "sequelize";
import { database } from "../database.server";
import { CircuitRow } from "../models.server";

/** Circuits of each open database, by id: a stored circuit never changes, and reading one costs more than all else. */
const known = new WeakMap<Sequelize, Map<string, Circuit>>();
const mostKept = 60;

/** A circuit by id; null where there is none. Throws when the stored one no longer parses. */
export async function findCircuit(id: string): Promise<Circuit | null> {
  const { sequelize } = await database();
  const own = known.get(sequelize) ?? new Map<string, Circuit>();
  known.set(sequelize, own);
  const met = own.get(id);
  if (met) return met;
  const row = await CircuitRow.findByPk(id);
  if (!row) return null;
  const parsed = parseCircuit(JSON.parse(row.body));
  if (!parsed.ok) throw new Error(`stored circuit ${id} does not parse`);
  own.set(id, parsed.value);
  if (own.size > mostKept) own.delete(own.keys().next().value as string);
  return parsed.value;
}

/** Ids and titles of all circuits, by title. */
export async function listCircuits(): Promise<{ id: string; title: string }[]> {
  const rows = await CircuitRow.findAll({ attributes: ["id", "title"], order: [["title", "ASC"]] });
  return rows.map(({ id, title }) => ({ id, title }));
}

export async function addCircuit(circuit: Circuit, transaction: Transaction): Promise<void> {
  await CircuitRow.create(
    { id: circuit.id, title: circuit.title, body: JSON.stringify(circuit) },
    { transaction },
  );
}
