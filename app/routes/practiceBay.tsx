import { parsedJson } from "@core/formats/parsedJson";
import { PracticeBay } from "@core/practice/practiceBay";
import { parseTest } from "@core/predict/reading";
import { typedFigure } from "@core/units/typedFigure";
import { act } from "@db/repositories/practice.server";
import { data, redirect } from "react-router";
import { z } from "zod";
import { BayPage } from "../practice/BayPage";
import { bayAt, bayView } from "../practice/bayView.server";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/practiceBay";

export const meta: Route.MetaFunction = () => [{ title: "Practice bay · Airway" }];

export async function loader({ params }: Route.LoaderArgs) {
  const view = await bayView(params.id);
  if (view.over) throw redirect(`/practice/cases/${view.id}/debrief`);
  return view;
}

const form = z.object({
  token: z.uuid(),
  intent: z.enum(["look", "open", "ask", "fit", "drive", "give-up"]),
  look: z.string().max(4000).default(""),
  place: z.string().max(64).default(""),
  odds: z.string().max(8).default(""),
});

export async function action({ params, request }: Route.ActionArgs) {
  const fields = await sentForm(request);
  const parsed = form.safeParse(Object.fromEntries(fields));
  if (!parsed.success)
    return data({ problem: "That could not be read. Load the page again." }, { status: 400 });
  const { token, intent, look: asked, place, odds } = parsed.data;
  const { stored, on } = await bayAt(params.id);
  const parts = fields.getAll("parts").map(String);
  const done = await act(stored.id, token, new Date(), (acts) => {
    const bay = new PracticeBay(on, stored.hidden, acts, stored.costs);
    switch (intent) {
      case "look": {
        const test = parseTest(parsedJson(asked));
        return test
          ? bay.look(test)
          : { ok: false, why: "That test could not be read. Load the page again." };
      }
      case "open":
        return bay.open(place);
      case "ask":
        return bay.ask();
      case "fit":
        return bay.fit(parts, (odds.trim() === "" ? 0 : typedFigure(odds)) / 100);
      case "drive":
        return bay.drive();
      case "give-up":
        return bay.giveUp();
    }
  });
  if (!done.ok) return data({ problem: done.why }, { status: 400 });
  const over = done.act.act === "give-up" || (done.act.act === "drive" && done.act.held);
  return over ? redirect(`/practice/cases/${stored.id}/debrief`) : { problem: null };
}

export default function PracticeBayPage({ loaderData }: Route.ComponentProps) {
  return (
    <div className="flex h-screen max-md:h-auto max-md:min-h-screen max-md:flex-col">
      <Rail />
      <BayPage bay={loaderData} />
    </div>
  );
}
