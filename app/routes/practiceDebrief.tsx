import { DebriefPage } from "../practice/DebriefPage";
import { debriefView } from "../practice/debriefView.server";
import { Rail } from "../shell/Rail";
import type { Route } from "./+types/practiceDebrief";

export const meta: Route.MetaFunction = () => [{ title: "Debrief · Airway" }];

export const loader = ({ params }: Route.LoaderArgs) => debriefView(params.id);

export default function PracticeDebrief({ loaderData }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <DebriefPage debrief={loaderData} />
    </div>
  );
}
