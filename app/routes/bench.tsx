import { Outlet } from "react-router";
import { jobViewAt } from "../job/jobView.server";
import { probeSheetView } from "../probe/probeSheetView.server";
import type { Route } from "./+types/bench";

export async function loader({ params, request }: Route.LoaderArgs) {
  return probeSheetView(await jobViewAt(params.id, request.signal));
}

/** What the bench shows of a circuit stays as it is while readings come in. */
export const shouldRevalidate = ({
  currentParams,
  nextParams,
}: {
  currentParams: { id?: string };
  nextParams: { id?: string };
}): boolean => currentParams.id !== nextParams.id;

export default Outlet;
