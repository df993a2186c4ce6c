import { LRUCache } from "lru-cache";
import { randomId } from "../text/randomId";

/** Recent ids, by the state of the page and the fields; enough for every tap of the last minutes. */
const given = new LRUCache<string, string>({ max: 200 });

/** The id of an entry: the same fields entered twice from one state of the page are one entry. */
export function entryId(pageToken: string, fields: Readonly<Record<string, string>>): string {
  const key = `${pageToken} ${JSON.stringify(fields)}`;
  const id = given.get(key) ?? randomId();
  given.set(key, id);
  return id;
}
