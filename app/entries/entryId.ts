/** A random version 4 UUID (RFC 9562, 5.4); `crypto.randomUUID` is missing where a page came over plain http. */
export function randomId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] as number) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] as number) & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
}

const given = new Map<string, string>();
const mostGiven = 200;

/** The id of an entry: the same fields entered twice from one state of the page are one entry. */
export function entryId(pageToken: string, fields: Readonly<Record<string, string>>): string {
  const key = `${pageToken} ${JSON.stringify(fields)}`;
  const known = given.get(key);
  if (known) return known;
  const made = randomId();
  given.set(key, made);
  if (given.size > mostGiven) given.delete(given.keys().next().value as string);
  return made;
}
