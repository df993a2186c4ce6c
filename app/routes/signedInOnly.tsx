import { Outlet } from "react-router";
import { signedInOnly } from "../people/signedIn.server";
import type { Route } from "./+types/signedInOnly";

/** Runs before every loader and action of the pages inside: only who is signed in may have them. */
export const middleware: Route.MiddlewareFunction[] = [
  ({ context, request }) => signedInOnly(context, request),
];

export default function SignedInOnly() {
  return <Outlet />;
}
