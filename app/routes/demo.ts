import { bringDemo, removeDemo } from "@db/demoRemoval.server";
import { data, redirect } from "react-router";
import { z } from "zod";
import { stopLines } from "../board/jobLine.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/demo";

const form = z.object({ intent: z.enum(["load", "remove"]) });

/** Loads the demo workshop into an empty shop, or removes it. */
export async function action({ request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success) throw data("That cannot be read.", { status: 400 });
  if (parsed.data.intent === "remove") {
    // No line is worked out for a job that is being removed.
    await stopLines();
    await removeDemo(new Date());
  } else if (!(await bringDemo(new Date())))
    throw data("The demo workshop is only loaded into a shop without circuits.", { status: 409 });
  return redirect("/");
}
