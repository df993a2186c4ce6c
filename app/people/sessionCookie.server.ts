import { randomBytes } from "node:crypto";
import { readPrivate, writePrivate } from "@db/people/privateFile.server";
import { type Cookie, createCookie } from "react-router";
import type { Place } from "../network/visitor.server";

const yearSeconds = 365 * 86_400;
const keyFile = "session.key";

/** The key that cookies are signed with, made on first use. */
function signingKey(): string {
  const kept = readPrivate(keyFile);
  if (kept) return kept;
  const made = randomBytes(32).toString("base64url");
  writePrivate(keyFile, made);
  return made;
}

/**
 * Holds a session's token. Scripts cannot read it and other sites cannot send it. On the network it is never sent
 * without encryption; on the shop's own computer there is none.
 */
function cookieOf(place: Place["kind"]): Cookie {
  const encrypted = place === "device";
  return createCookie(encrypted ? "__Host-airway-session" : "airway-session", {
    httpOnly: true,
    secure: encrypted,
    sameSite: "strict",
    path: "/",
    maxAge: yearSeconds,
    secrets: [signingKey()],
  });
}

/** The token in a request's cookies; null if there is none, or if it was not signed here. */
export async function sessionToken(header: string | null, place: Place["kind"]): Promise<string | null> {
  const value: unknown = await cookieOf(place).parse(header);
  return typeof value === "string" ? value : null;
}

/** The `Set-Cookie` header that stores a session's token in a browser, or removes it if the token is empty. */
export const sessionHeader = (token: string, place: Place["kind"]): Promise<string> =>
  cookieOf(place).serialize(token, token === "" ? { maxAge: 0 } : {});
