import { Rail } from "../components/Rail";
import { FiguresBench } from "../records/FiguresBench";
import { figuresView } from "../records/figuresView.server";
import { RecordsNav } from "../records/RecordsNav";
import type { Route } from "./+types/figures";

export const meta: Route.MetaFunction = () => [{ title: "How it goes · Airway" }];

export async function loader({ request }: Route.LoaderArgs) {
  return { figures: await figuresView(new URL(request.url).searchParams.get("family")) };
}

export default function Figures({ loaderData: { figures } }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="grid w-full max-w-7xl min-w-0 grow content-start gap-3 p-5 max-md:p-3">
        <h1 className="text-2xl font-bold">How it goes</h1>
        <RecordsNav />
        {figures.jobs === 0 ? (
          <p className="sheet-card max-w-xl p-5">
            No job is closed yet. Each one that is closed after its proof run adds to these pictures.
          </p>
        ) : (
          <FiguresBench figures={figures} />
        )}
      </main>
    </div>
  );
}
