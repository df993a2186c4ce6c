import type { Person } from "@db/people/person";
import { desk } from "@db/people/sessions.server";
import { createContext } from "react-router";
import type { PairedDevice } from "./devices.server";

/** Where a request comes from: the shop's own computer, or a device that was paired. */
export type Place =
  | { readonly kind: "shop-computer" }
  | { readonly kind: "device"; readonly device: PairedDevice };

/** Who sends a request. */
export type Visitor =
  /** A device that is not paired. */
  | { readonly kind: "stranger" }
  /** Somebody at a known place who must say who they are. */
  | { readonly kind: "signed-out"; readonly place: Place }
  /** Somebody by name; null where the shop has named nobody yet. */
  | { readonly kind: "signed-in"; readonly place: Place; readonly person: Person | null };

/** The visitor of the current request. Whoever is not named by a door is a stranger. */
export const visitorContext = createContext<Visitor>({ kind: "stranger" });

/** What sessions call a place. */
export const placeId = (place: Place): string => (place.kind === "device" ? place.device.id : desk);

/** What people call a place. */
export const placeName = (place: Place): string =>
  place.kind === "device" ? place.device.name : "the shop’s computer";

/** Whether a visitor may change rates, backups, devices and people. Only an owner at the shop's own computer may. */
export const mayRunShop = (visitor: Visitor): boolean =>
  visitor.kind === "signed-in" &&
  visitor.place.kind === "shop-computer" &&
  (visitor.person === null || visitor.person.role === "owner");
