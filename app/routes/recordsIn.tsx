import { parseRecords } from "@core/formats/recordFile";
import { problemText } from "@core/problem/problem";
import { importRecords } from "@db/repositories/records.server";
import { data, Form, Link, useNavigation } from "react-router";
import { z } from "zod";
import { RecordsPage } from "../records/RecordsPage";
import { readRecordsCsv } from "../records/recordsCsv";
import { parsedJson } from "../text/parsedJson";
import type { Route } from "./+types/recordsIn";

export const meta: Route.MetaFunction = () => [{ title: "Bring records in · Airway" }];

const form = z.object({
  intent: z.enum(["try", "bring"]),
  text: z.string().min(1, "paste a file's text, or choose one").max(60_000_000),
});

export async function action({ request }: Route.ActionArgs) {
  const fields = await request.formData();
  const file = fields.get("file");
  const text = file instanceof File && file.size > 0 ? await file.text() : fields.get("text");
  const parsed = form.safeParse({ intent: fields.get("intent"), text });
  if (!parsed.success)
    return data(
      { problems: [parsed.error.issues[0]?.message ?? "it cannot be read"], outcome: null, text: "" },
      { status: 400 },
    );
  const own = parsed.data.text;
  const records = own.trimStart().startsWith("{") ? parseRecords(parsedJson(own)) : readRecordsCsv(own);
  if (!records.ok)
    return data({ problems: records.problems.map(problemText), outcome: null, text: own }, { status: 400 });
  const dry = parsed.data.intent === "try";
  const outcome = await importRecords(records.value, dry);
  return { problems: [], outcome: { ...outcome, dry }, text: dry ? own : "" };
}

export default function RecordsIn({ actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  const outcome = actionData?.outcome ?? null;
  return (
    <RecordsPage title="Bring records in" width="max-w-3xl">
      <p>
        Closed jobs as CSV or JSON, as “All closed jobs” writes them. The shop's odds do not learn from them:
        they were proven elsewhere. A job that is here already is left as it is.
      </p>
      <Form method="post" encType="multipart/form-data" className="grid gap-3">
        <label className="grid gap-0.5 text-base text-soft">
          A file
          <input
            type="file"
            name="file"
            accept=".csv,.json,text/csv,application/json"
            className="field text-ink"
          />
        </label>
        <label className="grid gap-0.5 text-base text-soft">
          or its text
          <textarea
            name="text"
            rows={6}
            key={actionData?.text}
            defaultValue={actionData?.text ?? ""}
            className="field figures w-full text-ink"
          />
        </label>
        <p className="flex flex-wrap gap-3">
          <button type="submit" name="intent" value="try" className="btn btn-main" disabled={busy}>
            Try it first
          </button>
          <button type="submit" name="intent" value="bring" className="btn" disabled={busy}>
            Bring them in
          </button>
        </p>
      </Form>
      {actionData && actionData.problems.length > 0 && (
        <div role="alert" className="text-danger">
          <p>Nothing was brought in:</p>
          <ul className="list-disc pl-5">
            {actionData.problems.map((problem) => (
              <li key={problem}>{problem}</li>
            ))}
          </ul>
        </div>
      )}
      {outcome && (
        <p role="status" className="sheet-card p-4">
          {outcome.dry ? "Tried, nothing stored: " : "Stored: "}
          {outcome.brought} brought in, {outcome.known} here already
          {outcome.strange.length > 0 &&
            `; left out for want of their circuits on the shelf: ${outcome.strange.join(", ")}`}
          .{!outcome.dry && <Link to="/records">To the records</Link>}
        </p>
      )}
    </RecordsPage>
  );
}
