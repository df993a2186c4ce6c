import { Outlet } from "react-router";
import { ownerOnly, signedInOnly } from "../people/signedIn.server";
import type { Route } from "./+types/ownerOnly";

/** Runs before every loader and action of the pages inside: only an owner may have them, at the shop's own computer. */
export const middleware: Route.MiddlewareFunction[] = [
  ({ context, request }) => {
    signedInOnly(context, request);
    ownerOnly(context);
  },
];

export default function OwnerOnly() {
  return <Outlet />;
}
