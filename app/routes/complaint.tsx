import { answerOf, complaintQuestions, everyAnswer } from "@core/diagnose/tests/complaintQuestions";
import { airflowSeen } from "@core/predict/observations/airflow";
import { keyOfReading, type Reading, testKey } from "@core/predict/reading";
import { setWords } from "@db/repositories/jobs.server";
import { readingsOf, setHeard } from "@db/repositories/readings.server";
import { answerText, topicText } from "@words/complaintWords";
import { data, Form, Link, useNavigation } from "react-router";
import { z } from "zod";
import { ComplaintQuestionLine } from "../complaint/ComplaintQuestionLine";
import { type AirflowWord, ComplaintStrip } from "../complaint/ComplaintStrip";
import { jobAt } from "../job/jobView.server";
import { randomId } from "../text/randomId";
import type { Route } from "./+types/complaint";

const form = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("heard"),
    token: z.uuid(),
    setting: z.string().max(16),
    seen: z.union([z.enum(airflowSeen), z.literal("")]),
  }),
  z.object({
    intent: z.literal("asked"),
    token: z.uuid(),
    question: z.string().max(64),
    /** Empty where an answer is taken back. */
    answer: z.string().max(64),
  }),
  z.object({ intent: z.literal("words"), words: z.string().trim().max(500) }),
]);

export async function loader({ params }: Route.LoaderArgs) {
  const { job, circuit } = await jobAt(params.id);
  const standing = (await readingsOf(job.id)).flatMap(({ reading, struckAt }) =>
    !struckAt && reading.heard ? [reading] : [],
  );
  const byLook = new Map(standing.map((reading) => [keyOfReading(reading), reading]));
  const questions = complaintQuestions(circuit).map((question) => {
    const reading = byLook.get(testKey(question.test));
    return {
      id: question.id,
      title: topicText(circuit, question.topic),
      chosen: reading ? (answerOf(question, reading)?.id ?? null) : null,
      token: randomId(),
      narrow: question.topic.kind === "history",
      answers: question.answers.map((answer) => ({
        id: answer.id,
        words: answerText(question.topic, answer),
        further: answer.further.map((more) => ({ id: more.id, words: answerText(question.topic, more) })),
      })),
    };
  });
  const heard: Record<string, AirflowWord> = {};
  for (const setting of circuit.settings) {
    const reading = byLook.get(testKey(speedLook(setting)));
    if (reading?.test === "airflow") heard[setting] = reading.seen;
  }
  return {
    id: job.id,
    settings: circuit.settings,
    heard,
    words: job.words,
    questions,
    tokens: Object.fromEntries(circuit.settings.map((setting) => [setting, randomId()])),
  };
}

const speedLook = (setting: string) => ({ test: "airflow", key: "run", setting }) as const;

export async function action({ params, request }: Route.ActionArgs) {
  const { job, circuit } = await jobAt(params.id);
  const parsed = form.safeParse(Object.fromEntries(await request.formData()));
  if (!parsed.success) throw data("That complaint cannot be read.", { status: 400 });
  const entry = parsed.data;
  if (entry.intent === "words") {
    await setWords(job.id, entry.words);
    return { saved: true };
  }
  const asked = { id: entry.token, jobId: job.id, takenAt: new Date() };
  if (entry.intent === "asked") {
    const question = complaintQuestions(circuit).find(({ id }) => id === entry.question);
    const [any] = question?.answers ?? [];
    if (!question || !any) throw data("There is no such question.", { status: 400 });
    const answer = everyAnswer(question).find(({ id }) => id === entry.answer);
    if (entry.answer !== "" && !answer) throw data("There is no such answer.", { status: 400 });
    await setHeard({ ...asked, reading: any.reading }, answer?.reading ?? null);
    return { saved: true };
  }
  if (!circuit.settings.includes(entry.setting))
    throw data("This circuit has no such speed.", { status: 400 });
  const heardAs = (seen: AirflowWord): Reading => ({ ...speedLook(entry.setting), heard: true, seen });
  await setHeard({ ...asked, reading: heardAs("none") }, entry.seen === "" ? null : heardAs(entry.seen));
  return { saved: true };
}

export default function Complaint({ loaderData }: Route.ComponentProps) {
  const saving = useNavigation().state === "submitting";
  const { id, settings, heard, tokens, words, questions } = loaderData;
  return (
    <main id="main" className="grid w-full max-w-4xl gap-5 p-5">
      <section aria-labelledby="speeds">
        <div className="flex flex-wrap items-center justify-between gap-3">
          <h2 id="speeds" className="text-lg font-bold">
            What each speed does
          </h2>
          <Link className="btn btn-main" to={`/jobs/${id}/probe`}>
            On to probing
          </Link>
        </div>
        <p className="text-base text-soft">
          See it for yourself: key on, off, each speed up and back. Tap what you find.
        </p>
        <div className="mt-2">
          <ComplaintStrip settings={settings} heard={heard} tokens={tokens} />
        </div>
      </section>
      <section aria-labelledby="asked">
        <h2 id="asked" className="text-lg font-bold">
          What else was noticed
        </h2>
        <p className="text-base text-soft">
          Ask, and tap what is known; what is left open counts for nothing. Every answer moves the odds.
        </p>
        <ul className="mt-1 border-b border-rule md:grid md:grid-cols-2 md:gap-x-8">
          {questions.map((question) => (
            <ComplaintQuestionLine key={question.id} question={question} />
          ))}
        </ul>
      </section>
      <Form method="post" className="grid gap-4" key={words}>
        <input type="hidden" name="intent" value="words" />
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
        </div>
      </Form>
    </main>
  );
}
