import { bringDemo, removeDemo } from "@db/demoRemoval.server";
import { data, redirect } from "react-router";
import { z } from "zod";
import { stopLines } from "../board/jobLine.server";
import { visitorContext } from "../network/visitor.server";
import { ownPinRefusal } from "../people/pinCheck.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/demo";

const form = z.object({ intent: z.enum(["load", "remove"]), pin: z.string().max(64).default("") });

/** Loads the demo workshop into an empty shop, or removes it, for which an owner types the PIN once more. */
export async function action({ request, context }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success) throw data("That cannot be read.", { status: 400 });
  if (parsed.data.intent === "remove") {
    const refused = await ownPinRefusal(context.get(visitorContext), parsed.data.pin);
    if (refused) return data({ problem: refused.problem }, { status: 422 });
    // No line is worked out for a job that is being removed.
    await stopLines();
    await removeDemo(new Date());
  } else if (!(await bringDemo(new Date())))
    throw data("The demo workshop is only loaded into a shop without circuits.", { status: 409 });
  return redirect("/");
}
