import { Outlet } from "react-router";

/** Pages for whoever reaches the server: pairing and signing in. */
export default function ForAnybody() {
  return <Outlet />;
}
