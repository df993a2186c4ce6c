import { Form, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { type BundleLine, previewBundle, storeBundle } from "../shelf/bundle.server";
import { ImportForm, Refusal } from "../shelf/ImportForm";
import { previewCase, storeCase } from "../shelf/importCase.server";
import { circuitFrom, previewImport, storeImport } from "../shelf/importCircuit.server";
import { Rail } from "../shell/Rail";
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
});

export const loader = () => ({ token: randomId() });

/** The case a text holds, as it was parsed from JSON; undefined where it holds none. */
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
  const { intent, text, token, label, model } = fields;
  const input = caseIn(text);
  if (input !== undefined) {
    const preview = await previewCase(input);
    if ("problems" in preview) return { text, problems: preview.problems };
    if (intent === "preview") return { text, brought: preview.value };
    if (label === "" || model === "")
      return {
        text,
        brought: preview.value,
        problems: ["A job is of a vehicle: say what the shop calls it, its make and model."],
      };
    const words = "Brought in from a file.";
    const stored = await storeCase(input, { formToken: token, label, model, words });
    if ("problems" in stored) return { text, problems: stored.problems };
    throw redirect(`/jobs/${stored.value.job}/probe`);
  }
  const read = circuitFrom(text, null);
  if ("problems" in read) return { text, problems: read.problems };
  if (intent === "store") {
    const stored = await storeImport(read.value);
    if ("problems" in stored) return { text, problems: stored.problems };
    throw redirect(`/shelf/${read.value.id}`);
  }
  const preview = await previewImport(read.value);
  return "problems" in preview ? { text, problems: preview.problems } : { text, preview: preview.value };
}

interface BundleAnswer {
  readonly problems?: readonly string[];
  readonly lines?: readonly BundleLine[];
}

async function takeBundle(file: File, store: boolean): Promise<BundleAnswer> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (!store) {
    const preview = await previewBundle(bytes);
    return "problems" in preview ? { problems: preview.problems } : { lines: preview.value };
  }
  const stored = await storeBundle(bytes);
  if ("problems" in stored) return { problems: stored.problems };
  throw redirect("/shelf");
}

export async function action({ request }: Route.ActionArgs) {
  const fields = await request.formData();
  const bundle = fields.get("bundle");
  if (bundle instanceof File)
    return { bundle: await takeBundle(bundle, fields.get("intent") === "store"), answer: undefined };
  const parsed = form.safeParse(Object.fromEntries(fields));
  if (!parsed.success)
    return { answer: { text: "", problems: ["Paste or choose a file first."] }, bundle: undefined };
  return { answer: await takeText(parsed.data), bundle: undefined };
}

export const meta: Route.MetaFunction = () => [{ title: "Bring in · Airway" }];

export default function ShelfImport({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="mx-auto grid w-full max-w-3xl grow content-start gap-8 p-5">
        <section>
          <h1 className="mb-4 text-2xl font-bold">Bring in a circuit or a case</h1>
          <ImportForm
            answer={actionData?.answer}
            token={loaderData.token}
            hint="Drop or paste an airway-circuit or airway-case file here"
          />
        </section>
        <BundleForm answer={actionData?.bundle} />
      </main>
    </div>
  );
}

function BundleForm({ answer }: { answer: BundleAnswer | undefined }) {
  const busy = useNavigation().state !== "idle";
  const changes = answer?.lines?.filter(({ version, newNotes }) => version !== null || newNotes > 0) ?? [];
  return (
    <section aria-labelledby="bundle">
      <h2 id="bundle" className="mb-2 text-lg font-bold">
        A whole shelf at once
      </h2>
      <Form method="post" encType="multipart/form-data" className="grid gap-3">
        <label className="grid gap-1 text-base text-soft">
          A bundle, as “Take the shelf out” on the shelf's page makes it
          <input type="file" name="bundle" accept=".zip" required className="field w-full" />
        </label>
        {answer?.problems && <Refusal problems={answer.problems} />}
        {answer?.lines && (
          <div className="sheet-card p-4 text-base" data-bundle="">
            <p className="font-bold">
              {answer.lines.length} circuits, {changes.length} of them say something new
            </p>
            <ul>
              {changes.map(({ shelfId, title, version, differs, newNotes }) => (
                <li key={shelfId} className="border-t border-rule py-0.5">
                  <b>{title}</b>{" "}
                  {version === null
                    ? "as on the shelf"
                    : version === 1
                      ? "is new"
                      : `becomes version ${version}, ${differs} things differ`}
                  {newNotes > 0 && `, ${newNotes} notes more`}
                </li>
              ))}
            </ul>
          </div>
        )}
        <div className="flex flex-wrap gap-3">
          <button type="submit" name="intent" value="preview" className="btn" disabled={busy}>
            See what the bundle would change
          </button>
          {changes.length > 0 && (
            <button type="submit" name="intent" value="store" className="btn btn-main" disabled={busy}>
              Bring it in
            </button>
          )}
        </div>
      </Form>
    </section>
  );
}
