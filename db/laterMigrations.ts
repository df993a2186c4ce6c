import { migrations } from "./migrations/index";

/** Migrations in a database that this Airway does not have, because a later one made the database. */
export function laterMigrations(names: readonly string[]): string[] {
  const known = new Set(migrations.map(({ name }) => name));
  return names.filter((name) => !known.has(name));
}
