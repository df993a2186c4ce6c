import { useState } from "react";
import { data, Form, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { FileChooser } from "../importing/FileChooser";
import { dropIncomingFile } from "../importing/incomingFile.server";
import { readKept } from "../importing/readIncoming.server";
import { type BundleLine, storeBundle } from "../shelf/bundle.server";
import { ImportForm, Refusal } from "../shelf/ImportForm";
import { previewCase, storeCase } from "../shelf/importCase.server";
import { circuitFrom, importOrPreview } from "../shelf/importCircuit.server";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import { randomId } from "../text/randomId";
import type { Route } from "./+types/shelfImport";

const mostText = 240_000;
const named = z.string().trim().max(60).default("");
const form = z.object({
  intent: z.enum(["preview", "store"]),
  text: z.string().min(1).max(mostText),
  token: z.uuid(),
  label: named,
  model: named,
  anyway: z.literal("yes").optional(),
});

export const loader = () => ({ token: randomId() });

/** The case in a text, parsed from JSON; undefined if there is none. */
function caseIn(text: string): unknown {
  try {
    const input: unknown = JSON.parse(text);
    const format = typeof input === "object" && input !== null && "format" in input ? input.format : null;
    return format === "airway-case" ? input : undefined;
  } catch {
    return undefined;
  }
}

async function takeText(fields: z.infer<typeof form>) {
  const { intent, text, token, label, model, anyway } = fields;
  const input = caseIn(text);
  if (input !== undefined) {
    const preview = await previewCase(input);
    if ("problems" in preview) return { text, problems: preview.problems };
    if (intent === "preview") return { text, brought: preview.value };
    if (label === "" || model === "")
      return {
        text,
        brought: preview.value,
        problems: ["Enter the vehicle: its nickname or fleet number, and its make and model."],
      };
    const words = "Imported from a file.";
    const stored = await storeCase(input, { formToken: token, label, model, words });
    if ("problems" in stored) return { text, problems: stored.problems };
    throw redirect(`/jobs/${stored.value.job}/probe`);
  }
  const read = circuitFrom(text, null);
  if ("problems" in read) return { text, problems: read.problems };
  const outcome = await importOrPreview(read.value, { store: intent === "store", anyway: anyway === "yes" });
  if (outcome === "stored") throw redirect(`/shelf/${read.value.id}`);
  return { text, ...outcome };
}

/** Imports the bundle that was uploaded and previewed. */
async function storeKeptBundle(signal: AbortSignal) {
  const came = await readKept("shelf", "readShelf", signal);
  const stored = "problems" in came ? came : await storeBundle(came.answer);
  if ("problems" in stored) return data({ answer: undefined, bundle: stored.problems }, { status: 422 });
  dropIncomingFile("shelf");
  throw redirect("/shelf");
}

export async function action({ request }: Route.ActionArgs) {
  const fields = Object.fromEntries(await sentForm(request));
  if (fields.intent === "store-bundle") return storeKeptBundle(request.signal);
  const parsed = form.safeParse(fields);
  if (!parsed.success)
    return data(
      { answer: { text: "", problems: ["Paste or choose a file first."] }, bundle: undefined },
      { status: 400 },
    );
  const answer = await takeText(parsed.data);
  return data({ answer, bundle: undefined }, { status: "problems" in answer ? 422 : 200 });
}

export const meta: Route.MetaFunction = () => [{ title: "Bring in · Airway" }];

export default function ShelfImport({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="mx-auto grid w-full max-w-3xl grow content-start gap-8 p-5">
        <section>
          <h1 className="mb-4 text-2xl font-bold">Import a circuit or a job</h1>
          <ImportForm
            answer={actionData?.answer}
            token={loaderData.token}
            hint="Drop or paste an airway-circuit or airway-case file here"
          />
        </section>
        <BundleForm problems={actionData?.bundle} />
      </main>
    </div>
  );
}

function BundleForm({ problems }: { readonly problems: readonly string[] | undefined }) {
  const busy = useNavigation().state !== "idle";
  const [lines, setLines] = useState<readonly BundleLine[] | null>(null);
  const changes = lines?.filter(({ version, newNotes }) => version !== null || newNotes > 0) ?? [];
  return (
    <section aria-labelledby="bundle" className="grid gap-3">
      <h2 id="bundle" className="text-lg font-bold">
        Import a whole shelf
      </h2>
      <FileChooser
        label="A bundle made with “Export shelf”"
        accept=".zip"
        disabled={busy}
        actions={[{ words: "Preview the bundle", to: "/bring-in/file" }]}
        onAnswer={(answer) => setLines(answer.lines ?? null)}
      />
      {problems && <Refusal problems={problems} />}
      {lines && (
        <div className="sheet-card p-4 text-base" data-bundle="">
          <p className="font-bold">
            {lines.length} circuits, {changes.length} of them new or changed
          </p>
          <ul>
            {changes.map(({ shelfId, title, version, differs, newNotes }) => (
              <li key={shelfId} className="border-t border-rule py-0.5">
                <b>{title}</b>{" "}
                {version === null
                  ? "same as on the shelf"
                  : version === 1
                    ? "new"
                    : `becomes version ${version}, ${differs} things differ`}
                {newNotes > 0 && `, ${newNotes} more notes`}
              </li>
            ))}
          </ul>
        </div>
      )}
      {changes.length > 0 && (
        <Form method="post">
          <button type="submit" name="intent" value="store-bundle" className="btn btn-main" disabled={busy}>
            Import
          </button>
        </Form>
      )}
    </section>
  );
}
