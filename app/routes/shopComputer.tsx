import { Outlet } from "react-router";
import { shopComputerOnly } from "../network/visitor.server";
import type { Route } from "./+types/shopComputer";

/** Runs before every loader and action of the pages inside: only the shop's own computer may have them. */
export const middleware: Route.MiddlewareFunction[] = [({ context }) => shopComputerOnly(context)];

export default function ShopComputer() {
  return <Outlet />;
}
