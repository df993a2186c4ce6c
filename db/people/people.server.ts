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
  /** When the command line made this PIN; deleted once the PIN is used. */
  pinMadeAt: z.iso.datetime().optional(),
});
type StoredPerson = z.infer<typeof person>;

const file = "people.json";
const stored = (): StoredPerson[] => z.array(person).parse(JSON.parse(readPrivate(file) ?? "[]"));
const store = (all: readonly StoredPerson[]): void => writePrivate(file, JSON.stringify(all, null, 1));

/** People who were removed. A name stands beside readings, so whoever is added under it again is the same person. */
const formerFile = "former.json";
const formerPerson = z.strictObject({ id: z.uuid(), name: z.string().min(1).max(40) });
const former = (): z.infer<typeof formerPerson>[] =>
  z.array(formerPerson).parse(JSON.parse(readPrivate(formerFile) ?? "[]"));

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

/**
 * Adds somebody. The first one must be an owner, or nobody could add the next. Somebody who was removed keeps their id, so
 * that entries which wait on a device under their name can still be stored.
 */
export async function addPerson(name: string, role: Role, pin: string): Promise<PeopleRefusal | null> {
  if (pin.length < leastPin[role]) return "pin-short";
  const pinHash = await hashPin(pin);
  const all = stored();
  if (all.some((own) => sameName(own.name, name))) return "name-taken";
  const id = former().find((own) => sameName(own.name, name))?.id ?? randomUUID();
  const now = [...all, { id, name, role, pinHash }];
  if (withoutOwner(now)) return "first-is-owner";
  store(now);
  return null;
}

/**
 * Gives somebody another PIN.
 * @param madeAt when the server's command line made it; null if an owner typed it
 */
export async function setPin(
  id: string,
  pin: string,
  madeAt: Date | null = null,
): Promise<PeopleRefusal | null> {
  const own = personWith(id);
  if (!own) return "no-such-person";
  if (pin.length < leastPin[own.role]) return "pin-short";
  const pinHash = await hashPin(pin);
  const pinMadeAt = madeAt?.toISOString();
  store(stored().map((each) => (each.id === id ? { ...each, pinHash, pinMadeAt } : each)));
  return null;
}

/** When the command line made the PIN that somebody signs in with, and forgets it; null if it did not make it. */
export function takePinMadeAt(id: string): Date | null {
  const own = stored().find((each) => each.id === id);
  if (!own?.pinMadeAt) return null;
  store(stored().map((each) => (each.id === id ? { ...each, pinMadeAt: undefined } : each)));
  return new Date(own.pinMadeAt);
}

/** Gives somebody another PIN made at random, for somebody who forgot theirs; null if nobody has that name. */
export async function makePin(name: string, at: Date): Promise<string | null> {
  const own = allPeople().find((each) => sameName(each.name, name));
  if (!own) return null;
  const pin = String(randomInt(10 ** 8)).padStart(8, "0");
  await setPin(own.id, pin, at);
  return pin;
}

/** Removes somebody: what they did keeps their name, and they can no longer sign in. */
export function removePerson(id: string): PeopleRefusal | null {
  const own = personWith(id);
  const left = stored().filter((each) => each.id !== id);
  if (withoutOwner(left)) return "last-owner";
  if (own) {
    const others = former().filter(({ name }) => !sameName(name, own.name));
    writePrivate(formerFile, JSON.stringify([...others, { id, name: own.name }], null, 1));
  }
  store(left);
  return null;
}

/** Whether a PIN is somebody's. A guess takes the same time for somebody who is not there. */
export async function checkPin(id: string, pin: string): Promise<boolean> {
  const own = stored().find((each) => each.id === id);
  const right = await isPin(pin, own?.pinHash ?? (await hashPin("")));
  return own !== undefined && right;
}
