import { data, Form, Link, useNavigation } from "react-router";
import { z } from "zod";
import { FileChooser } from "../importing/FileChooser";
import { ImportProgress } from "../importing/ImportProgress";
import { keepText } from "../importing/incomingFile.server";
import {
  dropRecords,
  isImportingRecords,
  type RecordsImport,
  readRecords,
  recordsImport,
  writeRecords,
} from "../importing/recordsImport.server";
import { RecordsPage } from "../records/RecordsPage";
import { logger } from "../shell/log.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/recordsIn";

export const meta: Route.MetaFunction = () => [{ title: "Import records · Airway" }];

const form = z.discriminatedUnion("intent", [
  z.object({
    intent: z.enum(["try", "bring"]),
    text: z.string().min(1, "Paste the text of a file, or choose a file."),
  }),
  /** Imports what was checked. */
  z.object({ intent: z.literal("write") }),
  /** Discards what is being read, was checked or was refused. */
  z.object({ intent: z.literal("drop") }),
]);

export const loader = () => ({ state: recordsImport() });

const refuse = (problem: string, status: number) => data({ problem }, { status });

export async function action({ request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success) return refuse(parsed.error.issues[0]?.message ?? "That cannot be read.", 400);
  const sent = parsed.data;
  switch (sent.intent) {
    case "write":
      writeRecords().catch((cause: unknown) => logger.error(cause, "bringing records in failed"));
      return { problem: null };
    case "drop":
      dropRecords();
      return { problem: null };
    default: {
      if (isImportingRecords()) return refuse("Another file is being imported. Wait until it is done.", 409);
      dropRecords();
      keepText("records", sent.text);
      await readRecords(sent.intent === "bring");
      return data({ problem: null }, { status: recordsImport().phase === "refused" ? 422 : 200 });
    }
  }
}

/** Requested again after a refusal too, because the state holds what is wrong with the file. */
export const shouldRevalidate = () => true;

export default function RecordsIn({ loaderData, actionData }: Route.ComponentProps) {
  const { state } = loaderData;
  const busy = useNavigation().state !== "idle" || state.phase === "reading" || state.phase === "writing";
  return (
    <RecordsPage title="Import records" width="max-w-3xl">
      <p>
        Import closed jobs as CSV or JSON, in the form that “Export closed jobs” writes. The shop does not
        learn from them, because they were proven elsewhere. Jobs that are already here stay as they are.
      </p>
      <FileChooser
        label="File to import"
        accept=".csv,.json,text/csv,application/json"
        disabled={busy}
        actions={[
          { words: "Check the file", to: "/records/in/file" },
          { words: "Import the file", to: "/records/in/file?store=yes" },
        ]}
      />
      <Form method="post" className="grid gap-3">
        <label className="grid gap-0.5 text-base text-soft">
          Or paste its text
          <textarea name="text" rows={6} className="field figures w-full text-ink" />
        </label>
        {actionData?.problem && (
          <p role="alert" className="text-danger">
            {actionData.problem}
          </p>
        )}
        <p className="flex flex-wrap gap-3">
          <button type="submit" name="intent" value="try" className="btn btn-main" disabled={busy}>
            Check the text
          </button>
          <button type="submit" name="intent" value="bring" className="btn" disabled={busy}>
            Import the text
          </button>
        </p>
      </Form>
      <ImportState state={state} />
    </RecordsPage>
  );
}

/** The result of the file. */
function ImportState({ state }: { readonly state: RecordsImport }) {
  switch (state.phase) {
    case "none":
      return null;
    case "reading":
      return (
        <div className="sheet-card grid gap-3 p-4">
          <ImportProgress words="Reading and checking the file. Nothing is saved yet." share={state.share} />
          <Decide intent="drop" words="Stop" />
        </div>
      );
    case "writing":
      return (
        <div className="sheet-card p-4">
          <ImportProgress
            words="Saving the jobs. Everybody can go on working. If Airway stops, the import continues at the next start."
            share={state.share}
          />
        </div>
      );
    case "interrupted":
      return (
        <div role="alert" className="sheet-card grid gap-3 p-4">
          <p>Only some of the jobs are saved. {state.problem}</p>
          <Decide intent="write" words="Save the rest" />
        </div>
      );
    case "refused":
      return (
        <div role="alert" className="text-danger">
          <p>Nothing was imported:</p>
          <ul className="list-disc pl-5">
            {state.problems.map((problem) => (
              <li key={problem}>{problem}</li>
            ))}
          </ul>
        </div>
      );
    case "tried":
    case "stored": {
      const { brought, known, strange } = state.outcome;
      return (
        <div className="sheet-card grid gap-3 p-4">
          <p role="status">
            {state.phase === "tried"
              ? `Checked, nothing saved yet. ${brought} jobs can be imported, ${known} are already here.`
              : `Saved. ${brought} jobs were imported, ${known} were already here.`}
            {strange.length > 0 &&
              ` Jobs on circuits that are not on the shelf were left out: ${strange.join(", ")}.`}{" "}
            {state.phase === "stored" && <Link to="/records">Go to the records</Link>}
          </p>
          {state.phase === "tried" && brought > 0 && <Decide intent="write" words="Import these jobs" />}
        </div>
      );
    }
  }
}

const Decide = ({ intent, words }: { readonly intent: "write" | "drop"; readonly words: string }) => (
  <Form method="post">
    <button type="submit" name="intent" value={intent} className="btn">
      {words}
    </button>
  </Form>
);
