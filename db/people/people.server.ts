import { randomInt, randomUUID } from "node:crypto";
import { z } from "zod";
import { leastPin, type Person, type Role, roles } from "./person";
import { hashPin, isPin } from "./pinHash.server";
import { readPrivate, writePrivate } from "./privateFile.server";

const person = z.strictObject({
  id: z.uuid(),
  name: z.string().min(1).max(40),
  role: z.enum(roles),
  pinHash: z.string(),
});
type StoredPerson = z.infer<typeof person>;

const file = "people.json";
const stored = (): StoredPerson[] => z.array(person).parse(JSON.parse(readPrivate(file) ?? "[]"));
const store = (all: readonly StoredPerson[]): void => writePrivate(file, JSON.stringify(all, null, 1));

const withoutPin = ({ id, name, role }: StoredPerson): Person => ({ id, name, role });

/** Why a change to the shop's people was refused. */
export type PeopleRefusal = "name-taken" | "pin-short" | "last-owner" | "first-is-owner" | "no-such-person";

/** Everybody who works in the shop, in the order they were added. */
export const allPeople = (): Person[] => stored().map(withoutPin);

/** Somebody by their id; null if they are not there any more. */
export const personWith = (id: string): Person | null => allPeople().find((own) => own.id === id) ?? null;

const sameName = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** Whether nobody would be left who may change rates, backups and people. */
const withoutOwner = (all: readonly StoredPerson[]): boolean =>
  all.length > 0 && all.every(({ role }) => role !== "owner");

/** Adds somebody. The first one must be an owner, or nobody could add the next. */
export async function addPerson(name: string, role: Role, pin: string): Promise<PeopleRefusal | null> {
  if (pin.length < leastPin[role]) return "pin-short";
  const pinHash = await hashPin(pin);
  const all = stored();
  if (all.some((own) => sameName(own.name, name))) return "name-taken";
  const now = [...all, { id: randomUUID(), name, role, pinHash }];
  if (withoutOwner(now)) return "first-is-owner";
  store(now);
  return null;
}

/** Gives somebody another PIN. */
export async function setPin(id: string, pin: string): Promise<PeopleRefusal | null> {
  const own = personWith(id);
  if (!own) return "no-such-person";
  if (pin.length < leastPin[own.role]) return "pin-short";
  const pinHash = await hashPin(pin);
  store(stored().map((each) => (each.id === id ? { ...each, pinHash } : each)));
  return null;
}

/** Gives somebody another PIN made at random, for somebody who forgot theirs; null if nobody has that name. */
export async function makePin(name: string): Promise<string | null> {
  const own = allPeople().find((each) => sameName(each.name, name));
  if (!own) return null;
  const pin = String(randomInt(10 ** 8)).padStart(8, "0");
  await setPin(own.id, pin);
  return pin;
}

/** Removes somebody: what they did keeps their name, and they can no longer sign in. */
export function removePerson(id: string): PeopleRefusal | null {
  const left = stored().filter((own) => own.id !== id);
  if (withoutOwner(left)) return "last-owner";
  store(left);
  return null;
}

/** Whether a PIN is somebody's. A guess takes the same time for somebody who is not there. */
export async function checkPin(id: string, pin: string): Promise<boolean> {
  const own = stored().find((each) => each.id === id);
  const right = await isPin(pin, own?.pinHash ?? (await hashPin("")));
  return own !== undefined && right;
}
