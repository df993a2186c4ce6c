import type { Circuit } from "@core/circuit/circuit";
import { parseCircuit } from "@core/circuit/parseCircuit";
import type { Transaction } from "sequelize";
import { CircuitRow } from "../models.server";

/** A circuit by id; null where there is none. Throws when the stored one no longer parses. */
export async function findCircuit(id: string): Promise<Circuit | null> {
  const row = await CircuitRow.findByPk(id);
  if (!row) return null;
  const parsed = parseCircuit(JSON.parse(row.body));
  if (!parsed.ok) throw new Error(`stored circuit ${id} does not parse`);
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
