import { createHash } from "node:crypto";
import type { Circuit } from "@core/circuit/circuit";
import { circuitShape } from "@core/circuit/circuitShape";
import { buildNetlist } from "@core/solve/buildNetlist";
import { circuitFamily } from "@core/solve/checks/circuitFamily";
import { LRUCache } from "lru-cache";
import type { Sequelize, Transaction } from "sequelize";
import { type Database, database } from "../database.server";
import { CircuitRow } from "../models/shelfModels.server";
import { type CircuitAbout, storedColumns } from "../storedColumns";

/**
 * Circuits of each open database by id; a stored circuit never changes, and parsing one takes longer than everything
 * else.
 */
const known = new WeakMap<Sequelize, LRUCache<string, Circuit>>();
const circuitsKept = 60;

/**
 * A circuit by id; null if there is none.
 * @throws if the stored one no longer parses
 */
export async function findCircuit(id: string): Promise<Circuit | null> {
  const { sequelize } = CircuitRow;
  if (!sequelize) throw new Error("no database is open");
  const own = known.get(sequelize) ?? new LRUCache<string, Circuit>({ max: circuitsKept });
  known.set(sequelize, own);
  const met = own.get(id);
  if (met) return met;
  const row = await CircuitRow.findByPk(id);
  if (!row) return null;
  const parsed = storedColumns.circuits.body.safeParse(row.body);
  if (!parsed.success) throw new Error(`stored circuit ${id} does not parse`);
  own.set(id, parsed.data);
  return parsed.data;
}

/** A circuit as the shelf lists it: its newest version. */
export interface ShelfLine {
  readonly rowId: string;
  readonly shelfId: string;
  readonly version: number;
  readonly title: string;
  readonly about: CircuitAbout | null;
}

function aboutOf(circuit: Circuit): CircuitAbout | null {
  const netlist = buildNetlist(circuit, { lumpWires: true });
  return netlist.ok ? { family: circuitFamily(netlist.value), shape: circuitShape(circuit) } : null;
}

/** Row id of a version: the first has its circuit's id, later ones add their number. */
const rowIdOf = (shelfId: string, version: number): string =>
  version === 1 ? shelfId : `${shelfId}@${version}`;

/** Whether there is any circuit on the shelf. */
export const hasCircuits = async (): Promise<boolean> =>
  (await CircuitRow.count({ where: { onShelf: 1 } })) > 0;

/** The newest version of every circuit, by title. */
export async function listCircuits(): Promise<ShelfLine[]> {
  const rows = await CircuitRow.findAll({
    where: { onShelf: 1 },
    attributes: ["id", "shelfId", "version", "title", "about"],
    order: [
      ["title", "ASC"],
      ["version", "DESC"],
    ],
  });
  const newest = new Map<string, CircuitRow>();
  for (const row of rows)
    if ((newest.get(row.shelfId)?.version ?? 0) < row.version) newest.set(row.shelfId, row);
  return [...newest.values()].map(({ id, shelfId, version, title, about }) => ({
    rowId: id,
    shelfId,
    version,
    title,
    about: storedColumns.circuits.about.parse(about),
  }));
}

/** Computes the search text of circuits that were stored before there was one. */
export async function describeCircuits(store: Database): Promise<void> {
  for (const row of await CircuitRow.findAll({ where: { about: "" } })) {
    const parsed = storedColumns.circuits.body.safeParse(row.body);
    const about = parsed.success ? aboutOf(parsed.data) : null;
    if (about)
      await store.write((transaction) =>
        CircuitRow.update({ about: JSON.stringify(about) }, { where: { id: row.id }, transaction }),
      );
  }
}

/** Versions of a circuit, the newest first; empty if the shelf has no such circuit. */
export async function versionsOf(
  shelfId: string,
): Promise<{ rowId: string; version: number; createdAt: Date }[]> {
  const rows = await CircuitRow.findAll({
    where: { shelfId, onShelf: 1 },
    attributes: ["id", "version", "createdAt"],
    order: [["version", "DESC"]],
  });
  return rows.map(({ id, version, createdAt }) => ({ rowId: id, version, createdAt }));
}

/** Row of the newest version of a row's circuit; the row itself if it is not on the shelf. */
export async function newestVersionOf(rowId: string): Promise<string> {
  const row = await CircuitRow.findByPk(rowId, { attributes: ["shelfId"] });
  const [newest] = row ? await versionsOf(row.shelfId) : [];
  return newest?.rowId ?? rowId;
}

/**
 * Stores a circuit on the shelf: the first of its id, or the next version.
 * @returns its row and version number
 */
export async function addCircuit(
  circuit: Circuit,
  transaction: Transaction,
): Promise<{ rowId: string; version: number }> {
  const last = await CircuitRow.max<number | null, CircuitRow>("version", {
    where: { shelfId: circuit.id },
    transaction,
  });
  const version = (last ?? 0) + 1;
  const rowId = rowIdOf(circuit.id, version);
  const about = aboutOf(circuit);
  await CircuitRow.create(
    {
      id: rowId,
      shelfId: circuit.id,
      version,
      title: circuit.title,
      body: JSON.stringify(circuit),
      about: about ? JSON.stringify(about) : "",
    },
    { transaction },
  );
  return { rowId, version };
}

/**
 * Stores a circuit that came with a practice case, apart from the shelf: whatever its id, the shelf and its jobs stay
 * unchanged. The same circuit is stored once.
 * @returns its row
 */
export async function keepPracticeCircuit(circuit: Circuit): Promise<string> {
  const body = JSON.stringify(circuit);
  const id = `practice-${createHash("sha256").update(body).digest("hex").slice(0, 24)}`;
  const store = await database();
  await store.write(async (transaction) => {
    if (await CircuitRow.findByPk(id, { transaction })) return;
    await CircuitRow.create(
      { id, shelfId: id, version: 1, title: circuit.title, body, onShelf: 0 },
      { transaction },
    );
  });
  return id;
}

/**
 * Stores a circuit that was worked out on a vehicle without a diagram, apart from the shelf: nobody has confirmed it.
 * @returns its row
 */
export async function keepLearnedCircuit(circuit: Circuit, transaction: Transaction): Promise<string> {
  const { id, title } = circuit;
  const about = aboutOf(circuit);
  await CircuitRow.create(
    {
      id,
      shelfId: id,
      version: 1,
      title,
      body: JSON.stringify(circuit),
      about: about ? JSON.stringify(about) : "",
      onShelf: 0,
    },
    { transaction },
  );
  return id;
}
