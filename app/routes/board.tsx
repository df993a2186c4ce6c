import { setFollowedUp } from "@db/repositories/followUps.server";
import { findJob } from "@db/repositories/jobs.server";
import { useEffect } from "react";
import { data, type ShouldRevalidateFunctionArgs, useRevalidator } from "react-router";
import { z } from "zod";
import { BoardPage } from "../board/BoardPage";
import { boardView } from "../board/boardView.server";
import { takeArrival } from "../job/takeArrival.server";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import type { Route } from "./+types/board";

export const loader = () => boardView();

const form = z.object({
  intent: z.enum(["followed-up", "not-followed-up", "parts-in"]),
  job: z.coerce.number().int().positive(),
});

export async function action({ request }: Route.ActionArgs) {
  const fields = textFields(await sentForm(request));
  const parsed = form.safeParse(fields);
  const job = parsed.success ? await findJob(parsed.data.job) : null;
  if (!parsed.success || !job) throw data("That could not be read. Load the board again.", { status: 400 });
  const { intent } = parsed.data;
  const now = new Date();
  if (intent === "parts-in") {
    await takeArrival(job.id, true, { intent: "arrived" }, now);
    return { followedUp: null };
  }
  await setFollowedUp(job.id, intent === "followed-up" ? now : null);
  return {
    followedUp:
      intent === "followed-up" ? { id: job.id, vehicle: `${job.vehicle.model}, ${job.vehicle.label}` } : null,
  };
}

/** The search and the order of the board are worked out in the browser. */
export const shouldRevalidate = ({
  currentUrl,
  nextUrl,
  formMethod,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs): boolean =>
  formMethod === undefined && currentUrl.search !== nextUrl.search ? false : defaultShouldRevalidate;

export const meta: Route.MetaFunction = () => [{ title: "Board · Airway" }];

/** Milliseconds between two requests for lines that are being worked out. */
const againMilliseconds = 1500;

export default function Board({ loaderData, actionData }: Route.ComponentProps) {
  const { revalidate } = useRevalidator();
  const { refreshing } = loaderData;
  useEffect(() => {
    if (!refreshing) return;
    const again = setInterval(() => void revalidate(), againMilliseconds);
    return () => clearInterval(again);
  }, [refreshing, revalidate]);
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <BoardPage board={loaderData} followedUp={actionData?.followedUp ?? null} />
    </div>
  );
}
