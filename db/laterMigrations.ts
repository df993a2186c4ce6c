import { migrations } from "./migrations/index";

/** Which of a database's migrations this Airway does not have: a later one made the database. */
export function laterMigrations(names: readonly string[]): string[] {
  const known = new Set(migrations.map(({ name }) => name));
  return names.filter((name) => !known.has(name));
}
