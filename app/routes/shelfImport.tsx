import { redirect } from "react-router";
import { z } from "zod";
import { Rail } from "../components/Rail";
import { ImportForm } from "../shelf/ImportForm";
import { circuitFrom, previewImport, storeImport } from "../shelf/importCircuit.server";
import type { Route } from "./+types/shelfImport";

const form = z.object({ intent: z.enum(["preview", "store"]), text: z.string().min(1).max(240_000) });

export async function action({ request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await request.formData()));
  if (!parsed.success) return { text: "", problems: ["Paste or choose a file first."] };
  const { intent, text } = parsed.data;
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

export const meta: Route.MetaFunction = () => [{ title: "Bring in a circuit · Airway" }];

export default function ShelfImport({ actionData }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="mx-auto w-full max-w-3xl grow p-5">
        <h1 className="mb-4 text-2xl font-bold">Bring in a circuit</h1>
        <ImportForm answer={actionData} hint="Drop or paste an airway-circuit file here" />
      </main>
    </div>
  );
}
