import { seenCarFrom } from "../seen/seenCarForm";
import { prepareSeen } from "../seen/seenEngine.server";
import type { Route } from "./+types/seenReady";

/** Begins to make the wirings of a vehicle ready, by what is seen of it so far; answers at once. */
export function loader({ request }: Route.LoaderArgs) {
  const seen = seenCarFrom(Object.fromEntries(new URL(request.url).searchParams));
  if (seen?.speeds) prepareSeen(seen);
  return new Response(null, { status: 204 });
}
