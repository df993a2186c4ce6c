import { createCookie } from "react-router";

const yearSeconds = 365 * 86_400;

/**
 * Holds a device's token. `__Host-` ties it to this address and to encryption; scripts cannot read it, and other sites
 * cannot send it.
 */
const cookie = createCookie("__Host-airway-device", {
  httpOnly: true,
  secure: true,
  sameSite: "strict",
  path: "/",
  maxAge: yearSeconds,
});

/** The token in a request's cookies; null if there is none. */
export async function parseCookie(header: string | undefined): Promise<string | null> {
  const value: unknown = await cookie.parse(header ?? null);
  return typeof value === "string" ? value : null;
}

/** The header that gives a device its token. */
export const tokenCookie = (token: string): Promise<string> => cookie.serialize(token);
