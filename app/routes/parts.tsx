import { parsedJson } from "@core/formats/parsedJson";
import { type PartDescription, parsePart } from "@core/match/partDescription";
import { type Parsed, problemText } from "@core/problem/problem";
import { matchesOf, type StoredMatch, setMatch, storePart } from "@db/repositories/parts.server";
import { shopTerms } from "@db/repositories/settings.server";
import { data, redirect } from "react-router";
import { z } from "zod";
import { diagnosisOf } from "../job/diagnosis.server";
import { intoJob } from "../job/intoJob.server";
import { jobAt, jobViewAt } from "../job/jobView.server";
import { PartsPage } from "../parts/PartsPage";
import { partsView, placeOf } from "../parts/partsView.server";
import { partFrom } from "../parts/readPartForm";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import type { Route } from "./+types/parts";

const partId = z.string().min(1).max(32);
const form = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("hold"),
    part: partId,
    old: z.string().max(24),
    fresh: z.string().max(24),
  }),
  z.object({
    intent: z.literal("override"),
    part: partId,
    feature: z.string().min(1).max(40),
    words: z.string().trim().min(3, "enter in a few words why the difference does not matter").max(300),
  }),
  z.object({ intent: z.literal("judge-again"), part: partId, feature: z.string().min(1).max(40) }),
  z.object({
    intent: z.literal("describe"),
    text: z.string().min(1).max(20_000),
    again: z.literal("yes").optional(),
  }),
  z.looseObject({
    intent: z.literal("typed"),
    part: partId,
    old: z.string().max(24),
    again: z.literal("yes").optional(),
  }),
]);

/** Adds a part to the list; refused if a field cannot be read, or if its number is already listed. */
async function listed(part: Parsed<PartDescription>, again: boolean): Promise<string | null> {
  if (!part.ok) return part.problems.map(problemText).join("; ");
  const stored = await storePart(part.value, again);
  return stored
    ? null
    : `${part.value.number} is already on the list. Choose it above, or tick that this one replaces it`;
}

export async function loader({ params, request }: Route.LoaderArgs) {
  const { job, circuit } = await jobAt(params.id);
  const asked = new URL(request.url).searchParams.get("part");
  const likely = job.fitted ?? diagnosisOf(await jobViewAt(params.id)).verdict.replace;
  const refused = new URL(request.url).searchParams.get("refused") === "yes";
  return { id: job.id, match: await partsView(job, circuit, asked, likely), refused };
}

export async function action({ params, request }: Route.ActionArgs) {
  const fields = textFields(await sentForm(request));
  const { job, circuit } = await jobAt(params.id);
  const parsed = form.safeParse(fields);
  if (!parsed.success)
    return data(
      { problem: parsed.error.issues[0]?.message ?? "That cannot be read.", text: null },
      { status: 400 },
    );
  const sent = parsed.data;
  if (sent.intent === "describe") {
    const problem = await listed(parsePart(parsedJson(sent.text)), sent.again === "yes");
    return problem ? data({ problem, text: sent.text }, { status: 400 }) : { problem: null, text: null };
  }
  if (!circuit.parts.some(({ id }) => id === sent.part))
    throw data("The circuit has no such part. Load the page again.", { status: 400 });
  const stored = (await matchesOf(job.id)).find(({ part }) => part === sent.part);
  const own = stored ?? { part: sent.part, oldNumber: null, newNumber: null, overrides: [] };
  const address = `/jobs/${job.id}/parts`;
  const store = async (match: StoredMatch) => {
    const words = `${sent.part}: new ${match.newNumber ?? "none"}, old ${match.oldNumber ?? "none"}`;
    const refused = await intoJob({ jobId: job.id, address, fields, words, at: new Date() }, () =>
      setMatch(job.id, match),
    );
    return refused ? redirect(address) : { problem: null, text: null };
  };
  if (sent.intent === "typed") {
    const part = partFrom(fields, placeOf(circuit, sent.part), (await shopTerms()).currency);
    const problem = await listed(part, sent.again === "yes");
    if (problem) return data({ problem, text: null }, { status: 400 });
    // The part just described becomes the new part.
    if (!part.ok) return { problem: null, text: null };
    return store({
      ...own,
      oldNumber: sent.old || own.oldNumber,
      newNumber: part.value.number,
      overrides: [],
    });
  }
  if (sent.intent === "hold") {
    const [oldNumber, newNumber] = [sent.old || null, sent.fresh || null];
    const kept = oldNumber === own.oldNumber && newNumber === own.newNumber;
    return store({ part: sent.part, oldNumber, newNumber, overrides: kept ? own.overrides : [] });
  }
  const others = own.overrides.filter(({ feature }) => feature !== sent.feature);
  return store({
    ...own,
    overrides:
      sent.intent === "override"
        ? [...others, { feature: sent.feature, words: sent.words, at: new Date().toISOString() }]
        : others,
  });
}

export default function PartsRoute({ loaderData, actionData }: Route.ComponentProps) {
  if (!loaderData.match)
    return (
      <main id="main" className="p-5">
        <p className="sheet-card max-w-xl p-5">This circuit has no part that is sold as a spare part.</p>
      </main>
    );
  return (
    <PartsPage
      key={loaderData.match.part}
      jobId={loaderData.id}
      match={loaderData.match}
      refusedToFit={loaderData.refused}
      problem={actionData?.problem ?? null}
      text={actionData?.text ?? null}
    />
  );
}
