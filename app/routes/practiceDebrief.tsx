import { Rail } from "../components/Rail";
import { DebriefBench } from "../practice/DebriefBench";
import { debriefView } from "../practice/debriefView.server";
import type { Route } from "./+types/practiceDebrief";

export const meta: Route.MetaFunction = () => [{ title: "Debrief · Airway" }];

export const loader = ({ params }: Route.LoaderArgs) => debriefView(params.id);

export default function PracticeDebrief({ loaderData }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <DebriefBench debrief={loaderData} />
    </div>
  );
}
