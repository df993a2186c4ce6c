import { airflowSeen, type Reading } from "@core/predict/reading";
import { noticeable } from "@db/jobWords";
import { setComplaint } from "@db/repositories/jobs.server";
import { readingsOf, setHeard } from "@db/repositories/readings.server";
import { data, Form, Link, useNavigation } from "react-router";
import { z } from "zod";
import { type AirflowWord, ComplaintStrip } from "../components/ComplaintStrip";
import { noticedWords } from "../components/words";
import { jobAt } from "../jobView.server";
import type { Route } from "./+types/complaint";

const form = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("heard"),
    token: z.uuid(),
    setting: z.string().max(16),
    seen: z.union([z.enum(airflowSeen), z.literal("")]),
  }),
  z.object({
    intent: z.literal("words"),
    words: z.string().trim().max(500),
    noticed: z.array(z.enum(noticeable)),
  }),
]);

export async function loader({ params }: Route.LoaderArgs) {
  const { job, circuit } = await jobAt(params.id);
  const stored = await readingsOf(job.id);
  const heard: Record<string, AirflowWord> = {};
  for (const { reading, struckAt } of stored) {
    if (!struckAt && reading.heard && reading.test === "airflow" && reading.setting !== undefined)
      heard[reading.setting] = reading.seen;
  }
  return {
    id: job.id,
    settings: circuit.settings,
    heard,
    words: job.words,
    noticed: job.noticed,
    tokens: Object.fromEntries(circuit.settings.map((setting) => [setting, crypto.randomUUID()])),
  };
}

export async function action({ params, request }: Route.ActionArgs) {
  const { job, circuit } = await jobAt(params.id);
  const entries = await request.formData();
  const parsed = form.safeParse({ ...Object.fromEntries(entries), noticed: entries.getAll("noticed") });
  if (!parsed.success) throw data("That complaint cannot be read.", { status: 400 });
  const entry = parsed.data;
  if (entry.intent === "words") {
    await setComplaint(job.id, entry.words, entry.noticed);
    return { saved: true };
  }
  if (!circuit.settings.includes(entry.setting))
    throw data("This circuit has no such speed.", { status: 400 });
  const heardAs = (seen: AirflowWord): Reading => ({
    test: "airflow",
    heard: true,
    key: "run",
    setting: entry.setting,
    seen,
  });
  await setHeard(
    { id: entry.token, jobId: job.id, reading: heardAs("none"), takenAt: new Date() },
    entry.seen === "" ? null : heardAs(entry.seen),
  );
  return { saved: true };
}

export default function Complaint({ loaderData }: Route.ComponentProps) {
  const saving = useNavigation().state === "submitting";
  const { id, settings, heard, tokens, words, noticed } = loaderData;
  return (
    <main id="main" className="grid w-full max-w-4xl gap-5 p-5">
      <section aria-labelledby="speeds">
        <h2 id="speeds" className="text-lg font-bold">
          What each speed does
        </h2>
        <p className="text-base text-soft">
          See it for yourself: key on, off, each speed up and back. Tap what you find.
        </p>
        <div className="mt-2">
          <ComplaintStrip settings={settings} heard={heard} tokens={tokens} />
        </div>
      </section>
      <Form method="post" className="grid gap-4" key={`${words}|${noticed.join()}`}>
        <input type="hidden" name="intent" value="words" />
        <fieldset className="flex flex-wrap gap-2">
          <legend className="mb-1 text-lg font-bold">Also noticed</legend>
          {noticeable.map((chip) => (
            <label
              key={chip}
              className="btn has-checked:border-ink has-checked:bg-ink has-checked:text-paper"
            >
              <input
                type="checkbox"
                name="noticed"
                value={chip}
                defaultChecked={noticed.includes(chip)}
                className="size-5 accent-[var(--feed)]"
              />
              {noticedWords[chip]}
            </label>
          ))}
        </fieldset>
        <p className="text-base text-soft">
          These go on the job card; the odds are worked out from the speeds and the readings.
        </p>
        <div className="grid gap-1">
          <label htmlFor="words" className="font-bold">
            In the customer's words
          </label>
          <textarea
            id="words"
            name="words"
            rows={2}
            maxLength={500}
            defaultValue={words}
            className="field w-full"
          />
        </div>
        <div className="flex flex-wrap gap-3">
          <button className="btn" type="submit" disabled={saving}>
            Save the words
          </button>
          <Link className="btn btn-main" to={`/jobs/${id}/probe`}>
            On to probing
          </Link>
        </div>
      </Form>
    </main>
  );
}
