import { createContext, data, type RouterContextProvider } from "react-router";
import type { PairedDevice } from "./devices.server";

/** Where a request comes from: the shop's own computer, a paired device, or one that is not paired yet. */
export type Visitor =
  | { readonly kind: "shop-computer" }
  | { readonly kind: "device"; readonly device: PairedDevice }
  | { readonly kind: "stranger" };

/** The visitor of the current request. */
export const visitorContext = createContext<Visitor>({ kind: "shop-computer" });

/**
 * Lets the shop's own computer pass.
 * @throws a 403 response for a request from the network
 */
export function shopComputerOnly(context: Readonly<RouterContextProvider>): void {
  if (context.get(visitorContext).kind !== "shop-computer")
    throw data("This is done on the shop’s own computer.", { status: 403 });
}
