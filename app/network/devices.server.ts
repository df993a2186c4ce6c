import { timingSafeEqual } from "node:crypto";
import { readPrivate, writePrivate } from "@db/people/privateFile.server";
import { randomToken, tokenHash } from "@db/people/token.server";
import { z } from "zod";
import { randomId } from "../text/randomId";

const device = z.strictObject({
  id: z.uuid(),
  name: z.string().min(1).max(60),
  tokenHash: z.string().length(64),
  pairedAt: z.iso.datetime(),
  seenAt: z.iso.datetime(),
});
type StoredDevice = z.infer<typeof device>;

/** A phone or tablet that was paired. */
export type PairedDevice = Omit<StoredDevice, "tokenHash">;

const file = "devices.json";

/**
 * The paired devices. They are kept beside the database, not in it, so that restoring a backup never lets a removed
 * device in again.
 */
const stored = (): StoredDevice[] => z.array(device).parse(JSON.parse(readPrivate(file) ?? "[]"));
const store = (all: readonly StoredDevice[]): void => writePrivate(file, JSON.stringify(all, null, 1));

const withoutToken = ({ id, name, pairedAt, seenAt }: StoredDevice): PairedDevice => ({
  id,
  name,
  pairedAt,
  seenAt,
});

/** The paired devices, the last used first. */
export const pairedDevices = (): PairedDevice[] =>
  stored()
    .map(withoutToken)
    .sort((a, b) => b.seenAt.localeCompare(a.seenAt));

/** Pairs a device; resolves with the token it signs in with, which is nowhere else. */
export function addDevice(name: string, now = new Date()): string {
  const token = randomToken();
  const at = now.toISOString();
  store([...stored(), { id: randomId(), name, tokenHash: tokenHash(token), pairedAt: at, seenAt: at }]);
  return token;
}

/** Removes a device: its next request is refused. */
export const removeDevice = (id: string): void => store(stored().filter((own) => own.id !== id));

/** The last use of a device is written down at most this often. */
const seenEveryMilliseconds = 60_000;

/** The device that a token belongs to; null if it was removed or never paired. Notes that it was used. */
export function deviceWith(token: string, now = new Date()): PairedDevice | null {
  const given = Buffer.from(tokenHash(token));
  const all = stored();
  const own = all.find((each) => timingSafeEqual(Buffer.from(each.tokenHash), given));
  if (!own) return null;
  if (now.getTime() - new Date(own.seenAt).getTime() >= seenEveryMilliseconds) {
    own.seenAt = now.toISOString();
    store(all);
  }
  return withoutToken(own);
}
