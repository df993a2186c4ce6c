import { allPeople } from "@db/people/people.server";
import { signedInWith } from "@db/people/sessions.server";
import { data, type RouterContextProvider, redirect } from "react-router";
import { madeByHeader, nobody } from "../network/madeBy";
import { mayRunShop, type Place, placeId, type Visitor, visitorContext } from "../network/visitor.server";
import { sessionToken } from "./sessionCookie.server";

/**
 * Who sends a request from a known place. While the shop has named nobody, its own computer is open; a shop of one may
 * stay without sign-in there. Nothing is open to a device that nobody signed in on.
 * @param isLoopback whether the shop's computer is reached from itself only
 */
export async function visitorAt(place: Place, cookies: string | null, isLoopback: boolean): Promise<Visitor> {
  const token = await sessionToken(cookies, place.kind);
  const person = token === null ? null : signedInWith(token, placeId(place));
  if (person) return { kind: "signed-in", place, person };
  if (place.kind === "device") return { kind: "signed-out", place };
  const [first = null, second] = allPeople();
  return first === null || (isLoopback && second === undefined)
    ? { kind: "signed-in", place, person: first }
    : { kind: "signed-out", place };
}

/**
 * Lets those pass who are signed in, and entries only under the name they were made with.
 * @throws a redirect to the page to sign in on; for the queue a 401 response, so that the entry waits
 */
export function signedInOnly(context: Readonly<RouterContextProvider>, request: Request): void {
  const visitor = context.get(visitorContext);
  const madeBy = request.headers.get(madeByHeader);
  if (visitor.kind === "signed-in") {
    if (madeBy !== null && madeBy !== nobody && madeBy !== visitor.person?.id)
      throw Response.json({ problem: "Somebody else is signed in now." }, { status: 401 });
    return;
  }
  if (visitor.kind === "stranger") throw data("This device is not paired.", { status: 401 });
  if (madeBy !== null) throw Response.json({ problem: "You are signed out." }, { status: 401 });
  const { pathname, search } = new URL(request.url);
  const to = request.method === "GET" ? `${pathname}${search}` : "/";
  throw redirect(`/sign-in?${new URLSearchParams({ to })}`);
}

/**
 * Lets an owner pass, at the shop's own computer.
 * @throws a 403 response for everybody else
 */
export function ownerOnly(context: Readonly<RouterContextProvider>): void {
  const visitor = context.get(visitorContext);
  if (mayRunShop(visitor)) return;
  throw data(
    visitor.kind === "signed-in" && visitor.place.kind === "shop-computer"
      ? "Only an owner may do this. Sign in as an owner."
      : "This is done on the shop’s own computer, by an owner.",
    { status: 403 },
  );
}
