import type { Person } from "@db/people/person";
import { useRouteLoaderData } from "react-router";

/** Who uses this page, and whether they may change rates, backups, devices and people. */
export interface SignedIn {
  /** Null if nobody is signed in, or while the shop has named nobody. */
  readonly me: Person | null;
  readonly runsShop: boolean;
  /** Ids of everybody who works in the shop; empty where nobody is signed in. */
  readonly people: readonly string[];
}

/** Who uses this page; nobody where its data did not load. */
export const useSignedIn = (): SignedIn =>
  useRouteLoaderData<SignedIn>("root") ?? { me: null, runsShop: false, people: [] };
