import { parsedJson } from "@core/formats/parsedJson";
import { offerKinds } from "@core/money/repairOffer";
import { problemsOf, problemText } from "@core/problem/problem";
import { typedFigure } from "@core/units/typedFigure";
import { setBookTime } from "@db/repositories/bookTimes.server";
import { addEstimate, approveEstimate } from "@db/repositories/estimates.server";
import { addPartSource, choosePartSource, deletePartSource } from "@db/repositories/partSources.server";
import { shopTerms } from "@db/repositories/settings.server";
import { estimateBodySchema } from "@db/storedColumns";
import { data, redirect } from "react-router";
import { z } from "zod";
import { EstimatePage } from "../estimate/EstimatePage";
import { estimateView, offerFor } from "../estimate/estimateView.server";
import { worksInWords } from "../estimate/offerInput.server";
import { intoJob, type WriteToJob } from "../job/intoJob.server";
import { jobAt, jobViewAt } from "../job/jobView.server";
import { wrongPartAddress } from "../parts/jobMatches.server";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import { typedMinor } from "../text/money";
import type { Route } from "./+types/estimate";

const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("offer"), token: z.uuid(), offer: z.enum(offerKinds) }),
  z.object({
    intent: z.literal("store"),
    token: z.uuid(),
    kind: z.enum(["estimate", "bill"]),
    body: z.string().max(60_000),
  }),
  z.object({
    intent: z.literal("source"),
    token: z.uuid(),
    part: z.string().min(1).max(120),
    source: z.string().trim().min(2, "enter who sells it").max(80),
    number: z.string().trim().max(60).default(""),
    price: z.string().trim().max(20),
    arrivesOn: z.union([z.literal(""), z.iso.date()]).default(""),
  }),
  z.object({ intent: z.enum(["source-use", "source-delete"]), id: z.uuid() }),
  z.object({
    intent: z.literal("book-time"),
    part: z.string().min(1).max(32),
    hours: z.string().trim().max(10),
    source: z.string().trim().max(80).default(""),
  }),
  z.object({
    intent: z.literal("approve"),
    id: z.uuid(),
    by: z.string().trim().min(2, "enter how it was approved, such as at the counter or by phone").max(80),
  }),
]);

export const loader = ({ params }: Route.LoaderArgs) => estimateView(params.id);

const refuse = (problem: string) => data({ problem }, { status: 400 });

export async function action({ params, request }: Route.ActionArgs) {
  const fields = textFields(await sentForm(request));
  const { job, circuit } = await jobAt(params.id);
  const parsed = form.safeParse(fields);
  if (!parsed.success)
    return refuse(parsed.error.issues[0]?.message ?? "That could not be read. Load the page again.");
  const sent = parsed.data;
  const address = `/jobs/${job.id}/estimate`;
  const into = async (words: string, write: WriteToJob) => {
    const refused = await intoJob({ jobId: job.id, address, fields, words, at: new Date() }, write);
    return refused ? redirect(address) : { problem: null };
  };
  switch (sent.intent) {
    case "offer": {
      const offer = await offerFor(params.id, sent.offer);
      if (!offer) return refuse("That offer no longer exists, because the verdict has changed.");
      const wrong = await wrongPartAddress(job, circuit, offer.parts);
      if (wrong) return redirect(wrong);
      const { body } = offer;
      return into(`estimate: ${body.title}`, () =>
        addEstimate(job.id, { id: sent.token, kind: "estimate", body }, new Date()),
      );
    }
    case "store": {
      const input = parsedJson(sent.body);
      const body = estimateBodySchema.safeParse(input);
      if (!body.success) return refuse(problemsOf(body.error, input).map(problemText).join("; "));
      const works = worksInWords(await jobViewAt(params.id));
      return into(`${sent.kind}: ${body.data.title}`, () =>
        addEstimate(job.id, { id: sent.token, kind: sent.kind, body: { ...body.data, works } }, new Date()),
      );
    }
    case "source": {
      const { token, part, source, number, price, arrivesOn } = sent;
      const priceMinor = typedMinor(price, (await shopTerms()).currency);
      if (priceMinor === null || priceMinor < 0)
        return refuse(`Price: “${price}” is not an amount such as 45.00.`);
      const own = {
        id: token,
        part,
        source,
        number: number || null,
        priceMinor,
        arrivesOn: arrivesOn || null,
      };
      return into(`a source of a part: ${source}`, () => addPartSource(job.id, own, new Date()));
    }
    case "source-use":
      return into("a source of a part chosen", () => choosePartSource(job.id, sent.id));
    case "source-delete":
      return into("a source of a part deleted", () => deletePartSource(job.id, sent.id, new Date()));
    case "book-time": {
      const hours = typedFigure(sent.hours);
      if (sent.hours !== "" && !(hours > 0 && hours <= 24))
        return refuse(`Book time: “${sent.hours}” is not a number of hours such as 0.6.`);
      const time = sent.hours === "" ? null : { minutes: 60 * hours, source: sent.source };
      await setBookTime(job.circuitId, sent.part, time, new Date());
      return { problem: null };
    }
    case "approve":
      return into(`approved: ${sent.by}`, () => approveEstimate(job.id, sent.id, sent.by, new Date()));
  }
}

export default function EstimateRoute({ loaderData, actionData }: Route.ComponentProps) {
  return <EstimatePage page={loaderData} problem={actionData?.problem ?? null} />;
}
