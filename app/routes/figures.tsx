import { RecordsPage } from "../records/RecordsPage";
import { StatisticsPage } from "../records/StatisticsPage";
import { figuresView } from "../records/statisticsView.server";
import type { Route } from "./+types/figures";

export const meta: Route.MetaFunction = () => [{ title: "Statistics · Airway" }];

export async function loader({ request }: Route.LoaderArgs) {
  return { figures: await figuresView(new URL(request.url).searchParams.get("family")) };
}

export default function Figures({ loaderData: { figures } }: Route.ComponentProps) {
  return (
    <RecordsPage title="Statistics" width="max-w-7xl">
      {figures.jobs === 0 ? (
        <p className="sheet-card max-w-xl p-5">
          No job is closed yet. Every job closed after its final check adds to these charts.
        </p>
      ) : (
        <StatisticsPage figures={figures} />
      )}
    </RecordsPage>
  );
}
