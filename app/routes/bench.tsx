import { Outlet } from "react-router";
import { jobViewAt } from "../job/jobView.server";
import { probeSheetView } from "../probe/probeSheetView.server";
import type { Route } from "./+types/bench";

export async function loader({ params, request }: Route.LoaderArgs) {
  return probeSheetView(await jobViewAt(params.id, request.signal));
}

/** The probe page's data about a circuit does not change with readings. */
export const shouldRevalidate = ({
  currentParams,
  nextParams,
}: {
  currentParams: { id?: string };
  nextParams: { id?: string };
}): boolean => currentParams.id !== nextParams.id;

export default Outlet;
