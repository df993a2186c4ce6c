import { Form } from "react-router";
import { FoundList } from "../find/FoundList";
import { findView } from "../find/findView.server";
import { mayRunShop, visitorContext } from "../network/visitor.server";
import { Rail } from "../shell/Rail";
import type { Route } from "./+types/find";

export async function loader({ request, context }: Route.LoaderArgs) {
  const query = (new URL(request.url).searchParams.get("q") ?? "").slice(0, 200);
  return { query, groups: await findView(query, mayRunShop(context.get(visitorContext))) };
}

export const meta: Route.MetaFunction = () => [{ title: "Search · Airway" }];

export default function Find({ loaderData: { query, groups } }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="grid w-full max-w-3xl min-w-0 grow content-start gap-4 p-5 max-md:p-3">
        <h1 className="text-2xl font-bold">Search</h1>
        <Form className="flex gap-2">
          <input
            key={query}
            type="search"
            name="q"
            aria-label="Search jobs, vehicles, circuits, parts and pages"
            className="field min-w-0 grow"
            defaultValue={query}
          />
          <button type="submit" className="btn">
            Search
          </button>
        </Form>
        {groups.length === 0 && query.trim() && <p className="text-soft">Nothing found. Use fewer words.</p>}
        <FoundList groups={groups} />
      </main>
    </div>
  );
}
