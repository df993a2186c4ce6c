import { parsedJson } from "@core/formats/parsedJson";
import { z } from "zod";
import { personWith } from "./people.server";
import type { Person } from "./person";
import { readPrivate, writePrivate } from "./privateFile.server";
import { randomToken, tokenHash } from "./token.server";

const session = z.strictObject({
  hash: z.string().length(64),
  person: z.uuid(),
  /** The device it was started on: its token is worth nothing on another. */
  place: z.string(),
  usedAt: z.iso.datetime(),
});
type Session = z.infer<typeof session>;

const file = "sessions.json";
/** Without use for this long, a session ends. */
export const idleHours = 4;
const idleMilliseconds = idleHours * 3_600_000;
/** The last use is written down at most this often. */
const noteMilliseconds = 60_000;

const isAlive = ({ usedAt }: Session, now: Date): boolean =>
  now.getTime() - new Date(usedAt).getTime() < idleMilliseconds;

/** The sessions that have not ended. From a damaged file there are none: everybody signs in again. */
function stored(now: Date): Session[] {
  const parsed = z.array(session).safeParse(parsedJson(readPrivate(file) ?? "[]"));
  return parsed.success ? parsed.data.filter((own) => isAlive(own, now)) : [];
}
const store = (all: readonly Session[]): void => writePrivate(file, JSON.stringify(all, null, 1));

/**
 * Signs somebody in at a place, where nobody else is signed in from then on.
 * @returns the token, which is nowhere else
 */
export function startSession(person: string, place: string, now = new Date()): string {
  const token = randomToken();
  store([
    ...stored(now).filter((own) => own.place !== place || place === desk),
    { hash: tokenHash(token), person, place, usedAt: now.toISOString() },
  ]);
  return token;
}

/** The place of the shop's own computer, which may have several browsers. */
export const desk = "desk";

/** Who is signed in with a token at a place; null if nobody is. Counts as use. */
export function signedInWith(token: string, place: string, now = new Date()): Person | null {
  const all = stored(now);
  const own = all.find(({ hash, place: at }) => hash === tokenHash(token) && at === place);
  if (!own) return null;
  if (now.getTime() - new Date(own.usedAt).getTime() >= noteMilliseconds) {
    own.usedAt = now.toISOString();
    store(all);
  }
  return personWith(own.person);
}

/** Whether somebody is signed in at a place. Does not count as use. */
export const isSignedIn = (person: string, place: string, now = new Date()): boolean =>
  stored(now).some((own) => own.person === person && own.place === place);

/** Ends the session of a token. */
export function endSession(token: string, now = new Date()): void {
  store(stored(now).filter(({ hash }) => hash !== tokenHash(token)));
}

/** Ends every session of somebody, wherever they are signed in. */
export function endSessionsOf(person: string, now = new Date()): void {
  store(stored(now).filter((own) => own.person !== person));
}
